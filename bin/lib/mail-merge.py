"""Merges a table into a template with LibreOffice's own mail merge, headless, into one PDF; prints the seconds.

Usage: mail-merge.py FOLDER letters|cards; FOLDER holds data.csv with a header line.
"""
import subprocess
import sys
import time
from pathlib import Path

import uno
from com.sun.star.beans import PropertyValue

folder = Path(sys.argv[1]).resolve()
kind = sys.argv[2]


def prop(name, value):
    p = PropertyValue()
    p.Name, p.Value = name, value
    return p


profile = f'-env:UserInstallation=file://{folder}/profile'
# The first start makes the profile, and ends by itself.
subprocess.run(['soffice', profile, '--headless', '--terminate_after_init'], timeout=120, check=False)
office = subprocess.Popen(
    [
        'soffice',
        profile,
        '--headless',
        '--norestore',
        f'--accept=pipe,name=merge{kind};urp;',
    ]
)
try:
    local = uno.getComponentContext()
    resolver = local.ServiceManager.createInstanceWithContext('com.sun.star.bridge.UnoUrlResolver', local)
    for _ in range(120):
        try:
            context = resolver.resolve(f'uno:pipe,name=merge{kind};urp;StarOffice.ComponentContext')
            break
        except Exception:
            time.sleep(0.5)
    make = lambda name: context.ServiceManager.createInstanceWithContext(name, context)
    sources = make('com.sun.star.sdb.DatabaseContext')
    source = sources.createInstance()
    source.URL = 'sdbc:flat:' + folder.as_uri()
    source.Info = (
        prop('HeaderLine', True),
        prop('Extension', 'csv'),
        prop('FieldDelimiter', ','),
        prop('StringDelimiter', '"'),
        prop('CharSet', 'UTF-8'),
    )
    source.DatabaseDocument.storeAsURL((folder / f'{kind}.odb').as_uri(), ())
    name = f'merge-{kind}'
    if sources.hasByName(name):
        sources.revokeObject(name)
    sources.registerObject(name, source)

    desktop = make('com.sun.star.frame.Desktop')
    document = desktop.loadComponentFromURL('private:factory/swriter', '_blank', 0, (prop('Hidden', True),))

    def field(column):
        master_name = f'com.sun.star.text.fieldmaster.DataBase.{name}.data.{column}'
        masters = document.getTextFieldMasters()
        if masters.hasByName(master_name):
            master = masters.getByName(master_name)
        else:
            master = document.createInstance('com.sun.star.text.fieldmaster.Database')
            master.DataBaseName, master.DataTableName = name, 'data'
            master.DataCommandType, master.DataColumnName = 0, column
        made = document.createInstance('com.sun.star.text.TextField.Database')
        made.attachTextFieldMaster(master)
        return made

    def write(text, columns):
        cursor = text.createTextCursor()
        for column in columns:
            cursor.gotoEnd(False)
            text.insertTextContent(cursor, field(column), False)
            cursor.gotoEnd(False)
            text.insertControlCharacter(cursor, 0, False)

    columns = (folder / 'data.csv').read_text(encoding='utf-8').splitlines()[0].replace('"', '').split(',')
    if kind == 'letters':
        write(document.Text, columns)
    else:
        table = document.createInstance('com.sun.star.text.TextTable')
        table.initialize(5, 2)
        document.Text.insertTextContent(document.Text.createTextCursor(), table, False)
        for n, cell in enumerate(table.getCellNames()):
            text = table.getCellByName(cell)
            if n > 0:
                following = document.createInstance('com.sun.star.text.TextField.DatabaseNextSet')
                following.DataBaseName, following.DataTableName, following.DataCommandType = name, 'data', 0
                following.Condition = 'TRUE'
                text.insertTextContent(text.createTextCursor(), following, False)
            write(text, columns)
    template = (folder / f'{kind}.odt').as_uri()
    document.storeAsURL(template, (prop('FilterName', 'writer8'),))
    document.close(True)

    merge = make('com.sun.star.text.MailMerge')
    merge.DataSourceName, merge.Command, merge.CommandType = name, 'data', 0
    merge.DocumentURL, merge.OutputURL, merge.OutputType = template, folder.as_uri(), 2
    merge.SaveAsSingleFile, merge.SaveFilter, merge.FileNamePrefix = True, 'writer_pdf_Export', f'merged-{kind}'
    began = time.monotonic()
    merge.execute(())
    print(f'{time.monotonic() - began:.2f}')
    try:
        desktop.terminate()
    except Exception:
        pass
finally:
    office.terminate()
    office.wait(30)
