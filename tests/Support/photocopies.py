"""Cuts the cards out of pictures of pages, as a camera is held before one of them, and copies each as a copier does.

Takes JSON on standard input: {"pages": [file], "boxes": [[left, top, right, bottom]], "count": cards in all,
"into": folder}, boxes in dots, the same on each page. A copy of a copy is softened, turned by two degrees, and has
nothing left between black and white. Writes card-N.pgm and copy-N.pgm.
"""

import json
import sys

from PIL import Image, ImageFilter

SOFT = ImageFilter.Kernel((3, 3), (1, 2, 1, 2, 4, 2, 1, 2, 1))

job = json.load(sys.stdin)
places = [(page, box) for page in job["pages"] for box in job["boxes"]][: job["count"]]
opened = {page: Image.open(page).convert("L") for page in job["pages"]}
for n, (page, box) in enumerate(places):
    card = opened[page].crop(box)
    card.save(f"{job['into']}/card-{n}.pgm")
    copy = card.filter(SOFT).rotate(2.0, Image.Resampling.BILINEAR, expand=True, fillcolor=255).filter(SOFT)
    copy.point(lambda shade: 255 if shade >= 128 else 0).save(f"{job['into']}/copy-{n}.pgm")
