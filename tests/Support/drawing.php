<?php

declare(strict_types=1);

// Draws which folder uses which, from the code. Run by bin/drawing.

use Tests\Support\Boundaries;

require __DIR__ . '/../../vendor/autoload.php';

chdir(__DIR__ . '/../..');

/**
 * Folders so that each uses only those before it, as far as that can be.
 *
 * @param  array<string, list<string>>  $uses
 * @return list<string>
 */
function storeys(array $uses): array
{
    $order = [];
    $left = $uses;
    while ($left !== []) {
        $free = array_keys(array_filter($left, fn(array $of): bool => array_intersect($of, array_keys($left)) === []));
        if ($free === []) {
            // Of a circle, whoever uses least of it.
            $counts = array_map(fn(array $of): int => count(array_intersect($of, array_keys($left))), $left);
            asort($counts);
            $free = [array_key_first($counts)];
        }
        sort($free);
        $order = [...$order, ...$free];
        $left = array_diff_key($left, array_flip($free));
    }

    return $order;
}

/** @param  array<string, list<string>>  $uses */
function matrix(array $uses, string $title, int $top): string
{
    [$cell, $left] = [20, 190];
    $order = storeys($uses);
    $place = array_flip($order);
    $n = count($order);
    $svg = sprintf('<text x="20" y="%d" font-size="17" font-weight="600">%s</text>', $top + 20, $title);
    $first = $top + 130;
    foreach ($order as $i => $name) {
        $y = $first + $i * $cell;
        $x = $left + $i * $cell;
        $svg .= sprintf(
            '<text x="%d" y="%d" text-anchor="end">%s</text><text transform="translate(%d %d) rotate(-60)">%s</text>',
            $left - 10,
            $y + 14,
            $name,
            $x + 12,
            $first - 8,
            $name,
        );
        $svg .= sprintf(
            '<rect x="%d" y="%d" width="%d" height="%d" fill="#1d2b2a" opacity=".12"/>',
            $x,
            $y,
            $cell,
            $cell,
        );
        foreach ($uses[$name] as $other) {
            if (isset($place[$other])) {
                $svg .= sprintf(
                    '<circle cx="%d" cy="%d" r="5" fill="%s"/>',
                    $left + $place[$other] * $cell + 10,
                    $y + 10,
                    $place[$other] < $i ? '#1d2b2a' : '#b3402e',
                );
            }
        }
    }
    for ($i = 0; $i <= $n; $i++) {
        $svg .= sprintf(
            '<path d="M%d %dh%dM%d %dv%d" stroke="#d8d2c3"/>',
            $left,
            $first + $i * $cell,
            $n * $cell,
            $left + $i * $cell,
            $first,
            $n * $cell,
        );
    }

    return $svg;
}

$core = Boundaries::foldersUsed('core', 'Vantrel\Core');
$app = Boundaries::foldersUsed('app', 'App');
$second = 130 + 20 * count($core) + 60;
$height = $second + 130 + 20 * count($app) + 40;
$width = 190 + 20 * max(count($core), count($app)) + 60;
file_put_contents(
    'docs/architecture.svg',
    sprintf(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" width="%d" font-family="sans-serif" ' .
            'font-size="13" fill="#1d2b2a"><title>Which folder uses which</title><rect width="100%%" ' .
            'height="100%%" fill="#faf7f0"/>%s%s</svg>' .
            "\n",
        $width,
        $height,
        $width,
        matrix($core, 'core: each uses those left of the diagonal', 10),
        matrix($app, 'app: red is what uses back', $second),
    ),
);
echo "docs/architecture.svg\n";
