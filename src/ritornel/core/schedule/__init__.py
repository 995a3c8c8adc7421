"""Show -> schedule: what starts when, with its waits. Tracks give the value of each property at each time."""

from ritornel.core.schedule.show_schedule import Moment, ShowSchedule, compile_show, moment_at
from ritornel.core.schedule.slide_schedule import Beat, SlideSchedule, Wait, compile_slide

__all__ = ["Beat", "Moment", "ShowSchedule", "SlideSchedule", "Wait", "compile_show", "compile_slide", "moment_at"]
