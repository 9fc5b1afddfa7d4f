"""Reads a file with a reader that is not ours, and writes what it finds as JSON: for the tests of reading."""
import csv, datetime, io, json, re, sys

kind, path = sys.argv[1], sys.argv[2]


def plain(value):
    if isinstance(value, datetime.datetime):
        text = value.isoformat(timespec="minutes")
        return {"date": text[:10] if text.endswith("T00:00") else text}
    if isinstance(value, datetime.date):
        return {"date": value.isoformat()}
    return value


if kind == "xlsx":
    import openpyxl

    book = openpyxl.load_workbook(path, data_only=False)
    result = [
        {
            "sheet": sheet.title,
            "hidden": sheet.sheet_state != "visible",
            "cells": [[plain(c.value) for c in row] for row in sheet.iter_rows()],
            "percent": [["%" in c.number_format for c in row] for row in sheet.iter_rows()],
            "indents": [[int(c.alignment.indent or 0) for c in row] for row in sheet.iter_rows()],
            "hiddenRows": sorted(k - 1 for k, d in sheet.row_dimensions.items() if d.hidden),
        }
        for sheet in book
    ]
elif kind == "csv":
    encoding, delimiter = sys.argv[3], sys.argv[4]
    result = list(csv.reader(io.StringIO(open(path, encoding=encoding, newline="").read()), delimiter=delimiter))
elif kind == "ics":
    import icalendar

    calendar = icalendar.Calendar.from_ical(open(path, "rb").read())
    moment = lambda c, name: plain(c.decoded(name).replace(tzinfo=None) if isinstance(c.decoded(name), datetime.datetime) else c.decoded(name)) if name in c else None
    result = [
        {
            "uid": str(c["uid"]),
            "summary": str(c["summary"]),
            "start": moment(c, "dtstart"),
            "end": moment(c, "dtend"),
            "due": moment(c, "due"),
            "comesBack": "rrule" in c or "recurrence-id" in c,
            "notes": str(c.get("description", "")),
        }
        for c in calendar.walk()
        if c.name in ("VEVENT", "VTODO")
    ]
elif kind == "ifc":
    # A second reading of the STEP text: entities by number, split at commas outside brackets and quotes.
    def arguments(text):
        parts, depth, quoted, now = [], 0, False, ""
        for ch in text:
            if ch == "'":
                quoted = not quoted
            if not quoted and ch in "()":
                depth += 1 if ch == "(" else -1
            if ch == "," and depth == 0 and not quoted:
                parts.append(now)
                now = ""
            else:
                now += ch
        return parts + [now]

    lines = re.findall(r"#(\d+)=\s*(IFC\w+)\((.*)\);", open(path).read())
    entity = {int(n): (name, arguments(args)) for n, name, args in lines}
    text = lambda a: None if a in ("$", "*") else a.strip("'")
    result = [
        {
            "ref": text(args[5]),
            "name": text(args[2]),
            "start": text(entity[int(args[11][1:])][1][5]),
            "finish": text(entity[int(args[11][1:])][1][6]),
            "milestone": args[9] == ".T.",
        }
        for name, args in entity.values()
        if name == "IFCTASK"
    ]
json.dump(result, sys.stdout)
