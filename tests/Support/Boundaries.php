<?php

declare(strict_types=1);

namespace Tests\Support;

use FilesystemIterator;
use PhpToken;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

/**
 * Reads code as tokens and finds what does not belong where it stands: a clock or chance in the core, writes outside
 * the ledger.
 */
final class Boundaries
{
    /** Functions that bring in the time, chance, files, processes or the environment, whatever they are given. */
    // prettier-ignore
    private const NEVER = [
        'time', 'microtime', 'hrtime', 'getdate', 'localtime', 'rand', 'mt_rand', 'random_int', 'random_bytes',
        'uniqid', 'lcg_value', 'shuffle', 'str_shuffle', 'array_rand', 'openssl_random_pseudo_bytes', 'getenv',
        'file_get_contents', 'file_put_contents', 'fopen', 'file', 'glob', 'readfile', 'tempnam', 'exec', 'shell_exec',
        'system', 'passthru', 'proc_open', 'popen', 'curl_init', 'fsockopen', 'sleep', 'usleep', 'config', 'now',
        'app', 'env',
    ];

    /** Functions that bring in the time where they are given fewer arguments than this. */
    private const WITH_TIME = [
        'date' => 2,
        'gmdate' => 2,
        'idate' => 2,
        'strtotime' => 2,
        'mktime' => 6,
        'gmmktime' => 6,
        'date_create' => 1,
        'date_create_immutable' => 1,
    ];

    private const CLASSES = '/^\\\\?(Illuminate|App|Laravel|Carbon|PDO|mysqli|Random)(\\\\|$)/';

    /** @return list<string> what the code takes from outside, as it stands in it */
    public static function impurities(string $code): array
    {
        $found = [];
        $tokens = array_values(array_filter(PhpToken::tokenize($code), fn(PhpToken $t): bool => !$t->isIgnorable()));
        foreach ($tokens as $i => $token) {
            $before = $tokens[$i - 1] ?? null;
            $next = $tokens[$i + 1] ?? null;
            if (
                $token->is(T_VARIABLE) &&
                preg_match('/^\$(_(GET|POST|SERVER|ENV|COOKIE|SESSION|FILES|REQUEST)|GLOBALS)$/', $token->text) === 1
            ) {
                $found[] = $token->text;
            }
            if (!$token->is([T_STRING, T_NAME_QUALIFIED, T_NAME_FULLY_QUALIFIED])) {
                continue;
            }
            $name = ltrim($token->text, '\\');
            if ($token->is([T_NAME_QUALIFIED, T_NAME_FULLY_QUALIFIED]) || in_array($name, ['PDO', 'mysqli'], true)) {
                if (preg_match(self::CLASSES, $name) === 1) {
                    $found[] = $name;
                }
            }
            $member =
                $before !== null &&
                $before->is([T_OBJECT_OPERATOR, T_NULLSAFE_OBJECT_OPERATOR, T_DOUBLE_COLON, T_FUNCTION, T_CONST]);
            if ($before?->is(T_NEW) === true && in_array($name, ['DateTimeImmutable', 'DateTime'], true)) {
                $arguments = self::arguments($tokens, $i + 1);
                // A literal that is no plain date is read against the time of day: 'now', 'tomorrow', '+1 day'.
                $first = trim($arguments[0] ?? '', "'\" ");
                $literal = preg_match('/^[\'"]/', trim($arguments[0] ?? '')) === 1;
                if (
                    $arguments === [] ||
                    $first === 'null' ||
                    ($literal && preg_match('/^(@-?\d+|\d{4}-\d{2}-\d{2})/', $first) !== 1)
                ) {
                    $found[] = "new $name(" . implode(', ', $arguments) . ')';
                }
            }
            if (
                $name === 'createFromFormat' &&
                $before?->is(T_DOUBLE_COLON) === true &&
                preg_match('/^\s*[\'"][!]|[|][\'"]\s*$/', self::arguments($tokens, $i + 1)[0] ?? '') !== 1
            ) {
                $found[] = 'createFromFormat';
            }
            if ($member || $next?->text !== '(' || $before?->is(T_NEW) === true) {
                continue;
            }
            $called = strtolower($name);
            if (
                in_array($called, self::NEVER, true) ||
                (isset(self::WITH_TIME[$called]) && count(self::arguments($tokens, $i + 1)) < self::WITH_TIME[$called])
            ) {
                $found[] = "$name()";
            }
        }

        return $found;
    }

    /** @return array<string, string> path to contents of every PHP file below a folder of the project */
    public static function files(string $folder): array
    {
        $found = [];
        /** @var SplFileInfo $file */
        foreach (
            new RecursiveIteratorIterator(
                new RecursiveDirectoryIterator(dirname(__DIR__, 2) . "/$folder", FilesystemIterator::SKIP_DOTS),
            )
            as $file
        ) {
            if ($file->getExtension() === 'php') {
                $found[substr((string) $file, strlen(dirname(__DIR__, 2)) + 1)] = (string) file_get_contents(
                    (string) $file,
                );
            }
        }
        ksort($found);

        return $found;
    }

    /**
     * Writes of tables that plans change, however they are broken over lines.
     *
     * @param  list<string>  $tables
     * @return list<string>
     */
    public static function writes(string $code, array $tables): array
    {
        $plain = implode(
            ' ',
            array_map(
                fn(PhpToken $t): string => $t->text,
                array_filter(PhpToken::tokenize($code), fn(PhpToken $t): bool => !$t->isIgnorable()),
            ),
        );
        $names = implode('|', $tables);
        $verbs =
            'insert|insertGetId|insertOrIgnore|insertUsing|update|updateOrInsert|upsert|delete|truncate|increment|' .
            'decrement|forceDelete|create|updateOrCreate|firstOrCreate|save|saveQuietly|fill|forceFill|push|touch';
        $models = 'Person|Section|SignIn|School|SchoolYear|Invitation';
        $found = [];
        // A query of a plan's table, or of its model, that ends in a write; semicolons end what is looked at.
        foreach (
            [
                "/DB :: (?:connection \( [^;]*? \) -> )?table \( ['\"](?:$names)(?: as \w+)?['\"] \) " .
                "[^;]*?-> (?:$verbs) \(/",
                "/\b(?:$models) :: " .
                '(?:query|where|whereIn|find|findOrFail|create|updateOrCreate|firstOrCreate|destroy|insert)\b' .
                '[^;]*?(?:->|::) ' .
                "(?:$verbs|destroy) \(/",
                "/\b(?:$models) :: (?:create|updateOrCreate|firstOrCreate|destroy|insert|upsert) \(/",
                '/DB :: (?:update|insert|delete|statement|affectingStatement|unprepared) \(/',
                '/-> (?:forceFill|saveQuietly|updateQuietly) \(/',
                '/\$(?:person|section|signIn|school|year|invitation) -> ' .
                '(?:update|save|delete|fill|increment|decrement|push) \(/',
            ]
            as $pattern
        ) {
            if (preg_match_all($pattern, $plain, $m) > 0) {
                array_push($found, ...$m[0]);
            }
        }

        return $found;
    }

    /**
     * The arguments of a call, each as text.
     *
     * @param  list<PhpToken>  $tokens
     * @param  int  $at where the opening bracket would be
     * @return list<string>
     */
    private static function arguments(array $tokens, int $at): array
    {
        if (($tokens[$at] ?? null)?->text !== '(') {
            return [];
        }
        $depth = 0;
        $arguments = [''];
        for ($i = $at; isset($tokens[$i]); $i++) {
            $text = $tokens[$i]->text;
            $depth += in_array($text, ['(', '[', '{'], true) ? 1 : (in_array($text, [')', ']', '}'], true) ? -1 : 0);
            if ($depth === 0) {
                break;
            }
            if ($depth === 1 && $text === ',') {
                $arguments[] = '';
            } elseif ($i > $at) {
                $arguments[count($arguments) - 1] .= $text . ' ';
            }
        }

        return array_values(array_filter(array_map(trim(...), $arguments), fn(string $a): bool => $a !== ''));
    }

    /**
     * Which folders each folder's code names.
     *
     * @return array<string, list<string>> folder to others, in order
     */
    public static function foldersUsed(string $base, string $namespace): array
    {
        $uses = [];
        foreach (self::files($base) as $path => $code) {
            $folder = explode('/', $path)[1];
            $uses[$folder] ??= [];
            preg_match_all('/' . preg_quote($namespace, '/') . '\\\\(\w+)\\\\/', $code, $named);
            $uses[$folder] = array_values(array_unique([...$uses[$folder], ...array_diff($named[1], [$folder])]));
        }
        ksort($uses);

        return array_map(function (array $folders): array {
            sort($folders);

            return $folders;
        }, $uses);
    }
}
