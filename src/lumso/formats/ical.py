"""Days as an iCalendar file (RFC 5545): what is done in one go as an event, an alarm where a window closes."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta

from lumso.core.days.days import LAST_CALL_MIN
from lumso.core.days.entries import Go, Numbered, closing
from lumso.core.days.hours import instant

PRODUCT = "-//Lumso//days//EN"


def to_ical(numbered: Sequence[Numbered], goes: Mapping[str, Go], now_min: float) -> str:
    """Numbered entries as a calendar; `goes` is what each stands for, by its UID. What is no more is cancelled."""
    from icalendar import Alarm, Calendar, Event  # only where a calendar is asked for

    made = Calendar()
    made.add("prodid", PRODUCT)
    made.add("version", "2.0")
    made.add("method", "PUBLISH")
    for one in numbered:
        event = Event()
        event.add("uid", one.entry.uid)
        event.add("dtstamp", instant(now_min))
        event.add("dtstart", datetime.fromisoformat(one.entry.begins))
        event.add("dtend", datetime.fromisoformat(one.entry.ends))
        event.add("summary", one.entry.summary)
        event.add("sequence", one.sequence)
        event.add("status", "CANCELLED" if one.gone else "CONFIRMED")
        if not one.gone:
            go = goes[one.entry.uid]
            event.add("description", _description(go))
            last = closing(go)
            if last and last.must_by_min is not None:
                alarm = Alarm()
                alarm.add("action", "DISPLAY")
                alarm.add("description", f"{last.operation.says}: by {last.must_by}. Later: {last.else_do}.")
                alarm.add("trigger", instant(last.must_by_min) - timedelta(minutes=LAST_CALL_MIN))
                event.add_component(alarm)
        made.add_component(event)
    return bytes(made.to_ical()).decode("utf-8")


def _description(go: Go) -> str:
    lines = [f"{o.at} {o.operation.says}" for o in go]
    care = [f"Take care. {c}" for o in go for c in o.operation.take_care]
    return "\n".join([*lines, *dict.fromkeys(care)])
