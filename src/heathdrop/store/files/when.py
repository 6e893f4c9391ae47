"""The day and the hour that a line names."""

import re
from datetime import date, timedelta

from heathdrop import catalog as catalogue

#: From when to when, of which the first is kept.
CLOCKS = re.compile(
    r"\b(?:(?:between|from)\s+)?([01]?\d)(:[0-5]\d)?\s?(?:and|to|until|till|-)\s?([01]?\d)(?::[0-5]\d)?"
    r"\s?([ap])\.?m\.?(?!\w)",
    re.I,
)
#: The same without a half of the day: mornings from 4, the rest after noon.
FROM_TO = re.compile(
    r"(?:\b(?:between|from)\s+|^\s*|,\s*)(1[0-2]|[1-9])(:[0-5]\d)?\s?(?:and|to|until|till|-)\s?(?:1[0-2]|[1-9])(?::[0-5]\d)?(?=\s*(?:,|$))",
    re.I,
)
CLOCK = re.compile(r"(?<![\d/])(?:at\s+)?([01]?\d|2[0-3])(?::([0-5]\d))?\s?([ap])\.?m\.?(?!\w)", re.I)
CLOCK_24 = re.compile(r"(?<!\d)([01]?\d|2[0-3]):([0-5]\d)(?!\d)")
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
MONTH = (
    r"(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|"
    r"oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\.?"
)
ISO = re.compile(r"(?<!\d)(\d{4})-(\d{1,2})-(\d{1,2})(?!\d)")
DAY_MONTH = re.compile(
    rf"(?<!\d)(\d{{1,2}})(?:st|nd|rd|th)?(?:\s?-\s?\d{{1,2}})?\s+(?:of\s+)?{MONTH}(?:,?\s+(\d{{4}}))?(?!\w)",
    re.I,
)
MONTH_DAY = re.compile(
    rf"\b{MONTH}\s+(\d{{1,2}})(?:st|nd|rd|th)?(?:\s?-\s?\d{{1,2}})?(?:,?\s+(\d{{4}}))?(?![\w/])", re.I
)
SLASHED = re.compile(r"(?<![\d/])(\d{1,2})[/.](\d{1,2})(?:[/.](\d{4}|\d{2}))?(?![\d/])")
WEEKDAYS = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
#: A day of the week; cut short only where it begins a part or stands after a word for it.
AGO = re.compile(
    rf"\b(today|yesterday|(?:last|this) weekend|(?:(?:on|last|this)\s+)?{WEEKDAYS}|"
    r"(?:on|last|this)\s+(?:mon|tues?|wed|thu(?:rs)?|fri|sat|sun))"
    r"(?=[\s,.]|$)|(?:^|(?<=,\s))(mon|tues?|wed|thu(?:rs)?|fri|sat|sun)(?=[\s,.]|$)",
    re.I,
)
#: A day of the week beside a date, which the date says already.
BESIDE_DATE = re.compile(
    rf"(?:^|(?<=,\s))(?:{WEEKDAYS}|mon|tues?|wed|thu(?:rs)?|fri|sat|sun)\b\.?,?\s*", re.I
)
#: The same before a date in figures.
BEFORE_SLASHED = re.compile(
    rf"\b(?:{WEEKDAYS}|mon|tues?|wed|thu(?:rs)?|fri|sat|sun)\b\.?,?\s+(?=(\d{{1,2}}/\d+))", re.I
)
#: What is a weight of a head before it is a day of a month.
WEIGHTS = re.compile(r"\d+/(?:2|4|8|16)$")


def day_in(line: str, today: date) -> tuple[date | None, str, str]:
    """The day that a line names (the latest such day that is not to come), what is unsure of it, and the line
    without it."""
    line = BEFORE_SLASHED.sub(lambda m: m[0] if WEIGHTS.fullmatch(m[1]) else "", line)
    for pattern, order in ((ISO, "ymd"), (DAY_MONTH, "dmy"), (MONTH_DAY, "mdy")):
        match = pattern.search(line)
        if match:
            part = dict(zip(order, match.groups(), strict=True))
            month = part["m"] if part["m"].isdigit() else str(MONTHS.index(part["m"][:3].lower()) + 1)
            on = _past(today, part["y"], int(month), int(part["d"]))
            rest = BESIDE_DATE.sub("", without(line, match))
            return (on, "", rest) if on else (None, match[0], rest)
    match = AGO.search(line)
    if match:
        word = (match[1] or match[2]).lower().split()[-1]
        if word == "weekend":
            return None, match[0], without(line, match)
        back = {"today": 0, "yesterday": 1}.get(word)
        if back is None:
            back = (today.weekday() - DAYS.index(word[:3])) % 7 or 7
        return today - timedelta(days=back), "", without(line, match)
    for match in SLASHED.finditer(line):
        alone = re.search(r"(?:^|,)\s*$", line[: match.start()]) and re.match(
            r"\s*(?:,|$)", line[match.end() :]
        )
        if (WEIGHTS.fullmatch(match[0]) and not alone) or ("." in match[0] and not match[3]):
            continue
        year = match[3] if match[3] is None or len(match[3]) == 4 else f"20{match[3]}"
        first, second = int(match[1]), int(match[2])
        days = {_past(today, year, first, second), _past(today, year, second, first)} - {None}
        if len(days) == 1:
            return days.pop(), "", without(line, match)
        return None, match[0], without(line, match)
    return None, "", line


def _past(today: date, year: str | None, month: int, day: int) -> date | None:
    """The day of a month, of its year or of the latest that is past; None where there is none."""
    for y in (int(year),) if year else (today.year, today.year - 1):
        try:
            on = date(y, month, day)
        except ValueError:
            continue
        if on <= today:
            return on
    return None


def without(text: str, match: re.Match[str]) -> str:
    return f"{text[: match.start()]} {text[match.end() :]}".strip(" ,")


def hour_in(text: str) -> tuple[tuple[int, int], str]:
    match = CLOCKS.search(text)
    if match is not None and 1 <= int(match[1]) <= 12:
        begun, ended = int(match[1]) % 12, int(match[3]) % 12
        # From 11 to 1 pm begins in the morning.
        after_noon = (match[4].lower() == "p") == (begun <= ended)
        return (begun + 12 * after_noon, int((match[2] or ":0")[1:])), text[: match.start()] + text[
            match.end() :
        ]
    match = FROM_TO.search(text)
    if match is not None:
        hour = int(match[1]) + 12 * (int(match[1]) < 4)
        return (hour, int((match[2] or ":0")[1:])), text[: match.start()] + text[match.end() :]
    match = CLOCK.search(text)
    if match is not None and 1 <= int(match[1]) <= 12:
        hour = int(match[1]) % 12 + (12 if match[3].lower() == "p" else 0)
        return (hour, int(match[2] or 0)), text[: match.start()] + text[match.end() :]
    match = CLOCK_24.search(text)
    if match is not None:
        return (int(match[1]), int(match[2])), text[: match.start()] + text[match.end() :]
    for said, hour in catalogue.load().words.hours.items():
        at = re.search(rf"\b(?:in the |at |this |early |late |all )*{said}\b", text, re.I)
        if at is not None:
            return (hour, 0), text[: at.start()] + text[at.end() :]
    return (12, 0), text
