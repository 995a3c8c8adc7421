"""The content of the help pages, read from `topics.toml`."""

from functools import cache
from pathlib import Path

import msgspec


class HelpTopic(msgspec.Struct, frozen=True):
    """A screen: its purpose, the tasks on it with their answers, its terms with their meaning, and the page whose keys
    it has.
    """

    name: str
    title: str
    about: str
    answers: dict[str, str]
    words: dict[str, str] = {}
    keys: str = "page"


class _Help(msgspec.Struct, frozen=True):
    topics: tuple[HelpTopic, ...]


@cache
def help_topics() -> tuple[HelpTopic, ...]:
    """All topics, in the order of the list."""
    return msgspec.toml.decode(Path(__file__).with_name("topics.toml").read_bytes(), type=_Help).topics


def topic_named(name: str) -> HelpTopic | None:
    """The topic of a screen."""
    return next((topic for topic in help_topics() if topic.name == name), None)


def found_topics(query: str) -> tuple[HelpTopic, ...]:
    """The topics with only the answers and terms that contain all words of the query, in any order and case."""
    wanted = query.casefold().split()

    def has(*texts: str) -> bool:
        text = " ".join(texts).casefold()
        return all(word in text for word in wanted)

    found = []
    for topic in help_topics():
        answers = {asks: says for asks, says in topic.answers.items() if has(topic.title, asks, says)}
        words = {word: meaning for word, meaning in topic.words.items() if has(word, meaning)}
        if answers or words:
            found.append(msgspec.structs.replace(topic, answers=answers, words=words))
    return tuple(found)
