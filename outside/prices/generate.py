"""Sums of bills by a spreadsheet: each line ROUND(count * each, places), tax ROUND(share * sum, places).

    pip install openpyxl==3.1.5 formulas==1.3.4
    python generate.py > bills.json

The workbook is written by openpyxl and worked out by `formulas`, a library that computes Excel workbooks. Lines whose third digit behind
the least coin is a five exactly are left to the tests by hand: binary fractions cannot hold them.
"""

import json
import random
import sys
import tempfile
from decimal import Decimal

import formulas
import openpyxl

random.seed(26)
PLACES = {"EUR": 2, "JPY": 0, "KWD": 3}


def amount(most, digits):
    return f"{random.uniform(0, most):.{digits}f}"


def is_tie(value, places):
    return (value.scaleb(places) % 1) == Decimal("0.5")


cases = []
for number in range(60):
    currency = random.choice(list(PLACES))
    lines = []
    while len(lines) < random.randint(1, 12):
        count, each = amount(40, random.choice([0, 1, 2])), amount(900, random.choice([0, 2, 4]))
        if not is_tie(Decimal(count) * Decimal(each), PLACES[currency]):
            lines.append([count, each])
    cases.append({"currency": currency, "lines": lines, "tax_percent": amount(25, 1)})

book = openpyxl.Workbook()
sheet = book.active
sheet.title = "Bills"
row = 1
for case in cases:
    places = PLACES[case["currency"]]
    first = row
    for count, each in case["lines"]:
        sheet.cell(row, 1, float(count))
        sheet.cell(row, 2, float(each))
        sheet.cell(row, 3, f"=ROUND(A{row}*B{row},{places})")
        row += 1
    sheet.cell(row, 3, f"=SUM(C{first}:C{row - 1})")
    sheet.cell(row, 4, f"=ROUND(C{row}*{case['tax_percent']}/100,{places})")
    sheet.cell(row, 5, f"=C{row}+D{row}")
    case["row"] = row
    row += 1
with tempfile.TemporaryDirectory() as folder:
    path = f"{folder}/bills.xlsx"
    book.save(path)
    solved = formulas.ExcelModel().loads(path).finish().calculate()

values = {}
for key, held in solved.items():
    if "!" in key and ":" not in key.split("!")[1]:
        values[key.split("!")[1]] = held.value[0, 0]
for case in cases:
    places = PLACES[case["currency"]]
    at = case.pop("row")
    for name, column in (("net", "C"), ("tax", "D"), ("total", "E")):
        case[name] = f"{float(values[f'{column}{at}']):.{places}f}"
json.dump(cases, sys.stdout, indent=1)
print()
