"""Recalculates a workbook of workings with a headless office suite. Usage: office-suite.py WORKBOOK [PORT]

Prints one line: how many figures are formulas, the median milliseconds of seven whole recalculations, and how many results differ
from the values that the file was written with. Needs Debian's libreoffice-calc-nogui and python3-uno.
"""
import os
import shutil
import signal
import statistics
import subprocess
import sys
import tempfile
import time

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

    def results():
        """Value of every figure that is a formula, by its place."""
        found = {}
        cells = workbook.Sheets.getByName("Figures").queryContentCells(16).Cells.createEnumeration()
        while cells.hasMoreElements():
            cell = cells.nextElement()
            found[cell.AbsoluteName] = cell.Value
        return found

    written = results()
    times = []
    for _ in range(7):
        began = time.perf_counter()
        workbook.calculateAll()
        times.append((time.perf_counter() - began) * 1000)
    now = results()
    differ = sum(abs(now[at] - value) > 1e-6 * max(1, abs(value)) for at, value in written.items())
    print(len(written), f"{statistics.median(times):.2f}", differ)
finally:
    # It is started through a wrapper: all of its group end.
    os.killpg(office.pid, signal.SIGKILL)
    shutil.rmtree(profile, ignore_errors=True)
