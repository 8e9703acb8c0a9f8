<?php

declare(strict_types=1);

/** A small sound workbook to break. */
function workbook(string $folder): string
{
    outside([
        '/usr/bin/python3',
        '-c',
        "import sys, openpyxl\nb = openpyxl.Workbook(); s = b.active\n" .
        "for i in range(200): s.append(['Name','Grade'] if i == 0 else ['Kid Number%d' % i, 3])\n" .
        'b.save(sys.argv[1])',
        "$folder/good.xlsx",
    ]);

    return "$folder/good.xlsx";
}

/** The workbook with bytes in the middle of its sheet changed. */
function overwritten(string $path): string
{
    $bytes = (string) file_get_contents($path);

    return substr_replace($bytes, str_repeat('x', 40), (int) strpos($bytes, 'xl/worksheets/sheet1.xml') + 200, 40);
}

/** @param  array<string, string>  $parts */
function zipOf(string $path, array $parts): string
{
    $zip = new ZipArchive();
    $zip->open($path, ZipArchive::CREATE | ZipArchive::OVERWRITE);
    foreach ($parts as $name => $content) {
        $zip->addFromString($name, $content);
    }
    $zip->close();

    return $path;
}
