<?php

declare(strict_types=1);

/** @return iterable<string, string> path from the root to content, of all code of ours that is not generated */
function ownCode(): iterable
{
    $root = dirname(__DIR__, 2);
    foreach (
        ['app', 'bin', 'bootstrap', 'config', 'core', 'database', 'gaps', 'resources/js', 'routes', 'tests']
        as $folder
    ) {
        $files = new RecursiveIteratorIterator(
            new RecursiveDirectoryIterator("$root/$folder", FilesystemIterator::SKIP_DOTS),
        );
        foreach ($files as $file) {
            assert($file instanceof SplFileInfo);
            $path = substr($file->getPathname(), strlen($root) + 1);
            if (
                in_array($file->getExtension(), ['php', 'ts', 'tsx', 'mjs'], true) &&
                !preg_match('~^bootstrap/cache/|/schema\.d\.ts$~', $path)
            ) {
                yield $path => (string) file_get_contents($file->getPathname());
            }
        }
    }
}

it('keeps lines to 120 columns; one string that stands by itself may be longer', function (): void {
    $alone = '/^\s*(?:<\w+ )?(?:\w+=|[?:] )?\{?(["\'`]).*\1\}?[,;)]*>?$/u';
    $long = [];
    foreach (ownCode() as $path => $code) {
        foreach (explode("\n", $code) as $i => $line) {
            if (mb_strlen($line) > 120 && preg_match($alone, $line) !== 1) {
                $long[] = "$path:" . ($i + 1);
            }
        }
    }
    expect($long)->toBe([]);
});

it('keeps what several test files use in tests/Support: run by itself, each has what it needs', function (): void {
    $defined = $files = [];
    foreach (ownCode() as $path => $code) {
        if (str_starts_with($path, 'tests/') && str_ends_with($path, 'Test.php')) {
            $files[$path] = $code;
            preg_match_all('/^function (\w+)\(/m', $code, $found);
            foreach ($found[1] as $name) {
                $defined[$name][] = $path;
            }
        }
    }
    $borrowed = [];
    foreach ($files as $path => $code) {
        preg_match_all('/(?<![\w>:$\\\\])(?<!function )(\w+)\(/', $code, $used);
        foreach (array_unique($used[1]) as $name) {
            if (isset($defined[$name]) && !in_array($path, $defined[$name], true)) {
                $borrowed[] = "$name() in $path";
            }
        }
    }
    expect($borrowed)->toBe([]);
});

it('keeps files to 400 lines', function (): void {
    $long = [];
    foreach (ownCode() as $path => $code) {
        if (substr_count($code, "\n") > 400) {
            $long[] = $path;
        }
    }
    expect($long)->toBe([]);
});
