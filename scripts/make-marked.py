"""Marks a document and a PDF as a reviewer would, in general programs: LibreOffice Writer by its UNO interface, and
poppler-glib (Debian packages libreoffice-writer, python3-uno, gir1.2-poppler-0.18). The results are kept in the repository,
so that tests need none of them: apps/server/src/platform/files/samples/marked.docx and marked.pdf.

usage: python3 scripts/make-marked.py taken.docx marked.docx report.pdf marked.pdf
The first is the text of brought-back.spec.ts with two notes, as it is taken along from the application.
"""
import os
import subprocess
import sys
import tempfile
import time

import gi
import uno
from com.sun.star.beans import PropertyValue

gi.require_version("Poppler", "0.18")
from gi.repository import Poppler  # noqa: E402

NAME = "Adjoa Mensah"


def named(name, value):
    prop = PropertyValue()
    prop.Name, prop.Value = name, value
    return prop


def writer():
    profile = tempfile.mkdtemp()
    accept = "--accept=socket,host=localhost,port=2002;urp;"
    subprocess.Popen(["soffice", "--headless", "--norestore", accept, f"-env:UserInstallation=file://{profile}"])
    resolver = uno.getComponentContext()
    resolver = resolver.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", resolver)
    for _ in range(60):
        try:
            return resolver.resolve("uno:socket,host=localhost,port=2002;urp;StarOffice.ComponentContext")
        except Exception:
            time.sleep(1)
    raise SystemExit("LibreOffice does not answer")


def mark_document(taken, marked):
    context = writer()
    services = context.ServiceManager
    provider = services.createInstanceWithContext("com.sun.star.configuration.ConfigurationProvider", context)
    profile = provider.createInstanceWithArguments(
        "com.sun.star.configuration.ConfigurationUpdateAccess", (named("nodepath", "/org.openoffice.UserProfile/Data"),)
    )
    profile.setPropertyValue("givenname", NAME.split()[0])
    profile.setPropertyValue("sn", NAME.split()[1])
    profile.commitChanges()
    desktop = services.createInstanceWithContext("com.sun.star.frame.Desktop", context)
    document = desktop.loadComponentFromURL(f"file://{os.path.abspath(taken)}", "_blank", 0, (named("Hidden", True),))

    def find(words):
        search = document.createSearchDescriptor()
        search.SearchString, search.SearchCaseSensitive = words, True
        return document.findFirst(search)

    def comment(words, said):
        at = find(words)
        field = document.createInstance("com.sun.star.text.textfield.Annotation")
        field.Author, field.Content = NAME, said
        at.Text.insertTextContent(at, field, True)

    comment("Geese have", "Who counted them?")
    comment("First the grass", "A nice order, keep it.")
    comment("2009.", "There is a typo here.")
    document.RecordChanges = True
    after = find("grazed")
    after.Text.insertString(after.Text.createTextCursorByRange(after.End), " slowly", False)
    find("since 2009").String = "from the spring of 2009 on"
    find("the grass").String = ""
    document.RecordChanges = False
    document.storeToURL(f"file://{os.path.abspath(marked)}", (named("FilterName", "MS Word 2007 XML"),))
    document.close(False)
    desktop.terminate()


def mark_pages(plain, marked):
    document = Poppler.Document.new_from_file(f"file://{os.path.abspath(plain)}", None)
    page = document.get_page(0)
    colour = Poppler.Color.new()
    colour.red, colour.green, colour.blue = 65535, 60000, 0

    def rectangle(x1, y1, x2, y2):
        made = Poppler.Rectangle()
        made.x1, made.y1, made.x2, made.y2 = x1, y1, x2, y2
        return made

    def point(x, y):
        made = Poppler.Point()
        made.x, made.y = x, y
        return made

    def add(annotation, said):
        if said is not None:
            annotation.set_contents(said)
        annotation.set_label(NAME)
        page.add_annot(annotation)

    def on_words(make, words, said):
        found = page.find_text(words)[0]
        quad = Poppler.Quadrilateral()
        quad.p1, quad.p2 = point(found.x1, found.y2), point(found.x2, found.y2)
        quad.p3, quad.p4 = point(found.x1, found.y1), point(found.x2, found.y1)
        annotation = make(document, rectangle(found.x1, found.y1, found.x2, found.y2), [quad])
        annotation.set_color(colour)
        add(annotation, said)

    on_words(Poppler.AnnotTextMarkup.new_highlight, "eastern basin", "Which of the two?")
    on_words(Poppler.AnnotTextMarkup.new_strikeout, "by boat", None)
    on_words(Poppler.AnnotTextMarkup.new_underline, "in later", "A good idea, keep it.")
    add(Poppler.AnnotSquare.new(document, rectangle(50, 400, 300, 500)), "Make this table wider.")
    add(Poppler.AnnotText.new(document, rectangle(300, 200, 320, 220)), "And what came after?")
    document.save(f"file://{os.path.abspath(marked)}")


if len(sys.argv) != 5:
    raise SystemExit(__doc__)
mark_document(sys.argv[1], sys.argv[2])
mark_pages(sys.argv[3], sys.argv[4])
