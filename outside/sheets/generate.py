"""The invented sheets of crates/core/tests/sheets as PDFs, by an independent writer (reportlab): a list, a table with cells of its own,
prose in two columns. The tests read from each what they read from the text."""
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import getSampleStyleSheet
from reportlab.platypus import BalancedColumns, Paragraph, SimpleDocTemplate, Spacer, Table

HERE = Path(__file__).parent
SHEETS = HERE.parent.parent / "crates/core/tests/sheets"
STYLES = getSampleStyleSheet()


def pdf(name, parts):
    SimpleDocTemplate(str(HERE / f"{name}.pdf"), pagesize=A4, invariant=1).build(parts)


def lines(name):
    return (SHEETS / f"{name}.txt").read_text().splitlines()


pdf("list", [Paragraph(line, STYLES["Normal"]) for line in lines("01-list")])
rows = [[cell.strip() for cell in line.split("  ") if cell.strip()] for line in lines("02-table")]
pdf("table", [Paragraph("Data sheet", STYLES["Title"]), Spacer(1, 12), Table([(row + ["", ""])[:2] for row in rows])])
prose = " ".join(lines("04-prose"))
pdf("prose", [BalancedColumns([Paragraph(part + ".", STYLES["Normal"]) for part in prose.split(". ")], nCols=2)])
