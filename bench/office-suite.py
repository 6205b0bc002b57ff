"""Recalculates a workbook of workings with a headless office suite. Usage: office-suite.py WORKBOOK [PORT]

Prints one line: how many formulas were written with a number, the median milliseconds of seven whole recalculations, and how many
results differ from those numbers, which are read from the file and not from the suite. Needs Debian's libreoffice-calc-nogui and python3-uno.
"""
import os
import shutil
import signal
import statistics
import subprocess
import sys
import tempfile
import time
import zipfile
from xml.etree import ElementTree

import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.connection import NoConnectException

port = int(sys.argv[2]) if len(sys.argv) > 2 else 23456
profile = tempfile.mkdtemp(prefix="emendum-office-")
office = subprocess.Popen(
    ["soffice", "--headless", "--norestore", f"-env:UserInstallation=file://{profile}", f"--accept=socket,host=127.0.0.1,port={port};urp;"],
    stdout=subprocess.DEVNULL,
    stderr=subprocess.DEVNULL,
    start_new_session=True,
)
try:
    local = uno.getComponentContext()
    resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
    until = time.monotonic() + 60
    while True:
        try:
            context = resolver.resolve(f"uno:socket,host=127.0.0.1,port={port};urp;StarOffice.ComponentContext")
            break
        except NoConnectException:
            if time.monotonic() > until:
                raise
            time.sleep(0.2)
    desktop = context.ServiceManager.createInstanceWithContext("com.sun.star.frame.Desktop", context)
    workbook = desktop.loadComponentFromURL(f"file://{sys.argv[1]}", "_blank", 0, (PropertyValue("Hidden", 0, True, 0), PropertyValue("ReadOnly", 0, True, 0)))

    def sheets():
        """Name and cells of every sheet of the file: a formula's place and the number written with it."""
        main = "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}"
        rel = "{http://schemas.openxmlformats.org/officeDocument/2006/relationships}id"
        with zipfile.ZipFile(sys.argv[1]) as file:
            parts = {
                r.get("Id"): r.get("Target").lstrip("/")
                for r in ElementTree.fromstring(file.read("xl/_rels/workbook.xml.rels"))
            }
            for sheet in ElementTree.fromstring(file.read("xl/workbook.xml")).iter(main + "sheet"):
                part = parts[sheet.get(rel)]
                cells = ElementTree.fromstring(file.read(part if part.startswith("xl/") else "xl/" + part)).iter(main + "c")
                yield sheet.get("name"), {
                    c.get("r"): float(c.find(main + "v").text)
                    for c in cells
                    if c.find(main + "f") is not None and c.find(main + "v") is not None and c.get("t") != "str"
                }

    written = dict(sheets())
    times = []
    for _ in range(7):
        began = time.perf_counter()
        workbook.calculateAll()
        times.append((time.perf_counter() - began) * 1000)
    differ = 0
    for name, cells in written.items():
        sheet = workbook.Sheets.getByName(name)
        for at, value in cells.items():
            cell = sheet.getCellRangeByName(at)
            differ += cell.getError() != 0 or abs(cell.Value - value) > 1e-6 * max(1, abs(value))
    print(sum(map(len, written.values())), f"{statistics.median(times):.2f}", differ)
finally:
    # It is started through a wrapper: all of its group end.
    os.killpg(office.pid, signal.SIGKILL)
    shutil.rmtree(profile, ignore_errors=True)
