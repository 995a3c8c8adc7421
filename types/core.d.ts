// Written by `python -m tests.script_types` from the structs of the core; a test holds it to them.

declare namespace Core {
  interface Advance {
    rule: "after" | "cue" | "voice";
    after_ms: number;
    cut_short: boolean;
    cue_id: string;
    hold_ms: number | null;
    breath_ms: number;
  }

  interface Asset {
    id: string;
    name: string;
    sha256: string;
    media_type: "audio/flac" | "audio/mp4" | "audio/mpeg" | "audio/ogg" | "audio/wav" | "image/gif" | "image/jpeg" | "image/png" | "image/webp" | "video/mp4" | "video/webm";
    size_bytes: number;
    width_px: number;
    height_px: number;
    lasts_ms: number;
    author: string;
    licence: string;
    credit: string;
    alternative: string;
    folder: string;
    loudness_lufs: number | null;
    silent: boolean;
    heavy: boolean;
  }

  interface Background {
    kind: "plain" | "gradient" | "picture" | "clip";
    colour: string;
    first: string;
    second: string;
    angle_deg: number;
    asset_id: string;
    veil: number;
  }

  interface Beat {
    start_ms: number;
    end_ms: number;
    wait: Wait | null;
  }

  interface BeatLine {
    title: string;
    arrivals: BuildWords[];
    notes: string;
    planned_ms: number;
  }

  interface Box {
    x: number;
    y: number;
    width: number;
    height: number;
    turn_deg: number;
  }

  interface Build {
    id: string;
    object_id: string;
    effect: string;
    starts: BuildStart;
    after_ms: number;
    lasts_ms: number;
    part: string | null;
    pace: "ease in" | "ease in and out" | "ease out" | "even";
    repeats: number;
    settings: {[key: string]: any};
    sound: SoundEffect | null;
  }

  interface BuildStart {
    rule: "cue" | "together" | "follows";
    cue_id: string;
    hold_ms: number | null;
  }

  type BuildTime = [build_id: string, beat: number, offset_ms: number, lasts_ms: number];

  interface BuildWords {
    kind: string;
    what: string;
    does: string;
    rule: string;
    lasts_ms: number;
  }

  interface Caption {
    start_ms: number;
    end_ms: number;
    text: string;
  }

  interface Crop {
    x: number;
    y: number;
    width: number;
    height: number;
  }

  interface Drift {
    ends: Crop;
    pace: "ease in" | "ease in and out" | "ease out" | "even";
    still: Crop | null;
  }

  type Entrance = [build: number, beat: number, offset_ms: number, lasts_ms: number, enters: boolean];

  interface Fill {
    kind: "plain" | "gradient";
    colour: string;
    first: string;
    second: string;
    angle_deg: number;
  }

  interface Frame {
    width_px: number;
    height_px: number;
  }

  interface Framing {
    id: string;
    name: string;
    x: number;
    y: number;
    width_px: number;
    turn_deg: number;
  }

  interface Furniture {
    footer: string;
    numbers: boolean;
    mark_asset_id: string | null;
  }

  interface Gap {
    axis: "x" | "y";
    first: number;
    start: number;
    end: number;
    last: number;
    low: number;
    high: number;
    object_ids: [string, string];
  }

  interface Guide {
    axis: "x" | "y";
    at: number;
    object_id?: string | null;
    only?: string | null;
    beside?: string | null;
  }

  interface Guides {
    lines: Guide[];
    gaps: Gap[];
    sizes: Size[];
  }

  interface Habits {
    effect: string;
    lasts_ms: number | null;
    pace: "ease in" | "ease in and out" | "ease out" | "even" | null;
  }

  interface InkStroke {
    ink: "chalk" | "plum" | "slate";
    points: [number, number][];
  }

  interface Layers {
    old: Ramp[];
    new: Ramp[];
    old_on_top: boolean;
    carries: boolean;
    old_objects: Moved[];
    new_objects: Moved[];
    new_ground: [number, number][];
  }

  interface LayoutPlace {
    name: string;
    title: string;
    wants: "clip" | "picture" | "words";
    look: "body" | "caption" | "credits" | "heading" | "picture" | "subtitle" | "title";
    wide: [number, number, number, number];
    tall: [number, number, number, number];
  }

  interface Link {
    before: string;
    after: string;
  }

  interface Mark {
    kind: "path" | "image" | "clip" | "text";
    d: string;
    fill?: Shade | string | null;
    stroke?: string | null;
    stroke_px?: number;
    dash?: number[];
    round?: boolean;
    asset_id: string;
    x: number;
    y: number;
    width: number;
    height: number;
    clip?: string;
    flip_x?: boolean;
    flip_y?: boolean;
    drift_to?: [number, number, number, number] | null;
    in_ms?: number;
    out_ms?: number;
    poster_ms?: number;
    rate_pct?: number;
    captions?: Caption[];
    text: string;
    family: string;
    weight: number;
    italic: boolean;
    size_px: number;
    colour: string | null;
    baseline: number;
    advance: number;
    rtl?: boolean;
    link?: string | null;
  }

  interface Mask {
    kind: "blinds" | "cells" | "iris" | "wipe";
    angle_deg?: number;
    count?: number;
    soft?: number;
  }

  interface Motion {
    object_id: string;
    part: string | null;
    away_first: boolean;
    entrances: Entrance[];
    segments: Segment[];
  }

  interface Moved {
    object_id: string;
    ramps: Ramp[];
  }

  interface MusicEnd {
    at: "show end" | "slide end" | "own length";
    slide_id: string;
  }

  interface MusicSpan {
    id: string;
    asset_id: string;
    start: MusicStart;
    end: MusicEnd;
    loops: boolean;
    crossfade_ms: number;
    fade_in_ms: number;
    fade_out_ms: number;
    gain_db: number;
    ducks: boolean;
    duck_db: number;
    ends_kept: boolean;
  }

  interface MusicStart {
    at: "show start" | "slide";
    slide_id: string;
    offset_ms: number;
  }

  interface MusicTime {
    span_id: string;
    asset_id: string;
    start_ms: number;
    end_ms: number;
    gain_db: number;
    fade_in_ms: number;
    fade_out_ms: number;
    passes: Pass[];
    first: number;
    last: number;
    offset_ms: number;
    lasts_ms: number;
    period_ms: number;
    runs_on: boolean;
    ducking: [number, number][];
    duck_db: number;
  }

  interface NamedMark {
    id: string;
    name: string;
    slide_id: string;
    offset_ms: number;
  }

  interface ObjectDrawing {
    object_id: string;
    x: number;
    y: number;
    width: number;
    height: number;
    turn_deg: number;
    opacity: number;
    needs_height: number;
    parts: PartDrawing[];
    size_px?: number;
    shadow?: ShadowMark | null;
    reach_px?: number;
  }

  interface Ornament {
    x: number;
    y: number;
    width: number;
    height: number;
    colour: string;
    form: "ellipse" | "rectangle";
    on: "all" | "openings" | "slides" | "titles";
  }

  interface Palette {
    ground: string;
    raised: string;
    words: string;
    soft: string;
    accent: string;
    second: string;
    line: string;
  }

  interface Paragraph {
    id: string;
    runs: TextRun[];
    list?: "bullets" | "none" | "numbers";
    level?: number;
  }

  interface PartDrawing {
    part: string | null;
    pivot_x: number;
    pivot_y: number;
    marks: Mark[];
    height?: number;
  }

  type Pass = [start_ms: number, end_ms: number, fade_in_ms: number, fade_out_ms: number, full_ms: number];

  interface PressAction {
    do: "next" | "slide" | "address" | "sound" | "clip";
    slide_id: string;
    address: string;
    asset_id: string;
    object_id: string;
  }

  interface PressedClip {
    id: string;
    asset_id: string;
    in_ms: number;
    out_ms: number;
    rate_pct: number;
    muted: boolean;
    gain_db: number;
    fade_in_ms: number;
    fade_out_ms: number;
    repeats: boolean;
  }

  interface Ramp {
    channel: "drawn" | "drift" | "opacity" | "pitch" | "played" | "reveal" | "scale" | "tint" | "turn" | "typed" | "wide" | "x" | "y" | "yaw";
    keys: [number, number][];
    curve: [number, number, number, number];
    mask: Mask | null;
    colour: string | null;
    hinge: [number, number, number] | null;
  }

  interface Rest {
    target: [string, string | null];
    first: number;
    last: number;
    before: Values;
    after: Values | null;
  }

  type Segment = [build: number, entrance: boolean, channel: "drawn" | "drift" | "opacity" | "pitch" | "played" | "reveal" | "scale" | "tint" | "turn" | "typed" | "wide" | "x" | "y" | "yaw", beat: number, offset_ms: number, cycle_ms: number, repeats: number, keys: [number, number][], curve: [number, number, number, number], mask: Mask | null, colour: string | null];

  interface Shade {
    kind: "shade";
    first: string;
    second: string;
    x1: number;
    y1: number;
    x2: number;
    y2: number;
  }

  interface Shadow {
    dx: number;
    dy: number;
    blur_px: number;
    colour: string;
  }

  interface ShadowMark {
    dx: number;
    dy: number;
    sigma_px: number;
    colour: string;
  }

  interface Show {
    id: string;
    title: string;
    frame: Frame;
    default_hold_ms: number;
    end: "black" | "hold" | "loop";
    runs: "on cue" | "self-running";
    slides: Slide[];
    music: MusicSpan[];
    assets: Asset[];
    holds_by_cue: {[key: string]: number};
    theme: Theme;
    furniture: Furniture;
    marks: NamedMark[];
    habits: Habits;
    voices_live: boolean;
    follows_take: string;
    language: string;
    notes_as_captions: boolean;
  }

  interface ShowSchedule {
    slides: SlideSchedule[];
    starts_ms: number[];
    content_ms: number;
    length_ms: number;
    end: "black" | "hold" | "loop";
  }

  interface Size {
    axis: "x" | "y";
    length: number;
    object_id: string;
  }

  interface Slide {
    id: string;
    name: string;
    lineage: string;
    background: Background | null;
    transition: Transition;
    advance: Advance;
    objects: SlideObject[];
    order: Build[];
    notes: string;
    skipped: boolean;
    layout: string;
    bare: boolean;
    links: Link[];
    unlinks: Link[];
    size: Frame | null;
    framings: Framing[];
    opens_on: string | null;
    voice: Voice | null;
    opens_section: string;
    also_live: boolean;
    spares: Spare[];
    given_to: string;
  }

  interface SlideDrawing {
    slide_id: string;
    ground: Mark[];
    objects: ObjectDrawing[];
    missing: string[];
  }

  interface SlideLayout {
    name: string;
    title: string;
    places: LayoutPlace[];
    opens: boolean;
  }

  interface SlideObject {
    kind: "text" | "table" | "picture" | "clip" | "shape";
    id: string;
    name: string;
    box: Box;
    growing: boolean;
    credits: boolean;
    lineage: string;
    opacity: number;
    place: string;
    group: string;
    locked: boolean;
    aside: boolean;
    shadow: Shadow | null;
    press: PressAction | null;
    wings: Wings | null;
    paragraphs: Paragraph[];
    family: string;
    size_px: number;
    weight: 400 | 600 | 700;
    italic: boolean;
    underline: boolean;
    colour: string | null;
    highlight: string | null;
    outline: Stroke | null;
    align: "centre" | "left" | "right";
    stand: "bottom" | "middle" | "top";
    line_spacing: number;
    paragraph_gap: number;
    overflow: "grow" | "shrink" | "spill";
    columns: TableColumn[];
    heading: boolean;
    heading_fill: string | null;
    band_fill: string | null;
    stroke: Stroke | null;
    asset_id: string;
    fit: "contain" | "cover" | "stretch";
    crop: Crop;
    flip_x: boolean;
    flip_y: boolean;
    corner_px: number;
    drift: Drift | null;
    alternative: string;
    out_ms: number;
    in_ms: number;
    poster_ms: number | null;
    muted: boolean;
    gain_db: number;
    fade_in_ms: number;
    fade_out_ms: number;
    repeats: boolean;
    holds: boolean;
    with_slide: boolean;
    rate_pct: number;
    captions: Caption[];
    form: "arch" | "arrow" | "bracket" | "bubble" | "ellipse" | "line" | "path" | "polygon" | "rectangle" | "ring" | "star" | "wheel";
    fill: Fill | null;
    points: number;
    hollow: number;
    tail_x: number;
    tail_y: number;
    heads: "both" | "end" | "none" | "start";
    path: string;
  }

  interface SlideSchedule {
    slide_id: string;
    transition_ms: number;
    beats: Beat[];
    builds: BuildTime[];
    last_wait: Wait | null;
    done_ms: number;
    length_ms: number;
    extended_ms: number;
    extended_for: "build" | "clip" | "transition" | "voice" | null;
    voice: VoiceTime | null;
    goes_on_ms: number | null;
  }

  interface SlideTracks {
    motions: Motion[];
    layers: Layers;
    view: Motion | null;
    rests: Rest[];
  }

  interface SoundEffect {
    asset_id: string;
    gain_db: number;
    keeps_on: boolean;
  }

  interface SoundTime {
    id: string;
    asset_id: string;
    start_ms: number;
    in_ms: number;
    lasts_ms: number;
    gain_db: number;
    index: number;
    offset_ms: number;
    beat: number;
    loops: boolean;
    pass_ms: number;
    fade_in_ms: number;
    fade_out_ms: number;
    ends_with_beat: boolean;
  }

  interface Spare {
    object: SlideObject;
    order: Build[];
  }

  interface Stroke {
    colour: string;
    width_px: number;
    dash: "dashed" | "dotted" | "solid";
  }

  interface TableColumn {
    width: number;
    align: "centre" | "left" | "right" | null;
  }

  interface Take {
    events: TakeEvent[];
    ended_ms: number;
    drawings?: {[key: string]: InkStroke[]};
  }

  interface TakeEvent {
    event: "arrived" | "cued";
    slide_id: string;
    at_ms: number;
    cue_id: string;
    waited_ms: number;
  }

  interface TextRun {
    text: string;
    weight?: number | null;
    italic?: boolean | null;
    colour?: string | null;
    underline?: boolean | null;
    highlight?: string | null;
    link?: string | null;
  }

  interface Theme {
    name: string;
    palette: Palette;
    heading_family: string;
    body_family: string;
    heading_weight: 400 | 600 | 700;
    heading_italic: boolean;
    title_px: number;
    heading_px: number;
    body_px: number;
    title_align: "centre" | "left" | "right";
    ground: Background;
    opening: Background;
    ornaments: Ornament[];
  }

  interface Transition {
    name: string;
    lasts_ms: number;
    pace: "ease in" | "ease in and out" | "ease out" | "even";
    settings: {[key: string]: any};
    sound: SoundEffect | null;
  }

  interface Values {
    shown: boolean;
    opacity: number;
    x: number;
    y: number;
    scale: number;
    turn: number;
    wide: number;
    reveal: number;
    drawn: number;
    typed: number;
    tint: number;
    mask: Mask | null;
    colour: string | null;
    yaw: number;
    pitch: number;
    hinge: [number, number, number] | null;
    drift: number;
    played: number | null;
  }

  interface Visibility {
    outside: "" | "partly" | "wholly";
    covered_by: string | null;
  }

  interface Voice {
    asset_id: string;
    out_ms: number;
    in_ms: number;
    offset_ms: number;
    gain_db: number;
    marks: {[key: string]: number};
  }

  interface VoiceTime {
    start_ms: number;
    end_ms: number;
  }

  interface Wait {
    cue_id: string;
    start_ms: number;
    hold_ms: number;
    source: "default" | "own hold" | "take" | "voice mark";
  }

  interface Wings {
    dx: number;
    dy: number;
    scale: number;
    opacity: number;
  }
}
