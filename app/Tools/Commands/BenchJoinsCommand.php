<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Platform\TryCounter;
use App\Tools\BenchList;
use Illuminate\Console\Command;
use Illuminate\Contracts\Encryption\Encrypter;
use Illuminate\Cookie\CookieValuePrefix;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;

/**
 * Fills an empty database for bin/bench joins: people, sections with codes, and students who are signed in within the
 * last minute and about to type one.
 */
final class BenchJoinsCommand extends Command
{
    private const SECTIONS = 100;

    protected $signature =
        'vantrel:bench-joins {file : where to write one line of JSON for each student: cookie, token, code} ' .
        '{--people=50000 : students in the district} {--joiners=4000 : how many of them will come in}';

    protected $description = 'Make the people of a bench of joining; run by bin/bench on a database of its own';

    public function handle(Encrypter $encrypter): int
    {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench joins.');

            return self::FAILURE;
        }
        $this->call('vantrel:seed', ['which' => 'empty']);
        $school = (string) DB::table('schools')->value('id');
        $year = (string) DB::table('school_years')->value('id');
        $codes = $this->sections($school, $year);
        $joiners = (int) $this->option('joiners');
        $file = fopen((string) $this->argument('file'), 'w');
        if ($file === false) {
            return self::FAILURE;
        }
        $rows = ['people' => [], 'sign_ins' => [], 'badges' => [], 'enrollments' => [], 'sessions' => []];
        $cookie = (string) config('session.cookie');
        $made = new BenchList();
        for ($i = 0, $n = (int) $this->option('people'); $i < $n; $i++) {
            [$person, $signIn] = $made->pupil($i, $school);
            $rows['people'][] = $person;
            $rows['sign_ins'][] = $signIn;
            $id = (string) $person['id'];
            // Everyone is in two sections already.
            foreach ([$i, $i + 37] as $at) {
                $rows['enrollments'][] = [
                    'id' => (string) Str::ulid(),
                    'version' => 0,
                    'section_id' => $codes[$at % self::SECTIONS][0],
                    'person_id' => $id,
                    'role' => 'student',
                    'begins_on' => '2026-08-24',
                    'source' => 'list',
                ];
            }
            if ($i < $joiners) {
                // They have just signed in with their cards.
                $rows['badges'][] = $card = $made->card((string) $signIn['id'], Str::random(43));
                $session = Str::random(40);
                $token = Str::random(40);
                $rows['sessions'][] = [
                    'id' => $session,
                    'user_id' => $id,
                    'ip_address' => '127.0.0.1',
                    'user_agent' => 'bench',
                    'way' => 'badge',
                    'payload' => base64_encode(
                        Crypt::encryptString(
                            serialize([
                                'opened_by' => [
                                    'way' => 'badge',
                                    'id' => $card['id'],
                                    'stamp' => '',
                                    'factor' => false,
                                    'at' => time(),
                                ],
                                'sign_in' => $signIn['id'],
                                '_token' => $token,
                                'login_web_' . sha1(\Illuminate\Auth\SessionGuard::class) => $id,
                                'seen_at' => time() + 180,
                                '_flash' => ['old' => [], 'new' => []],
                            ]),
                        ),
                    ),
                    'last_activity' => time(),
                ];
                fwrite(
                    $file,
                    json_encode(
                        [
                            'cookie' =>
                                $cookie .
                                '=' .
                                rawurlencode(
                                    $encrypter->encrypt(
                                        CookieValuePrefix::create($cookie, $encrypter->getKey()) . $session,
                                        false,
                                    ),
                                ),
                            'token' => $token,
                            'code' => $codes[($i + 11) % self::SECTIONS][1],
                        ],
                        JSON_THROW_ON_ERROR,
                    ) . "\n",
                );
            }
            if ($i % 1000 === 999 || $i === $n - 1) {
                foreach ($rows as $table => $batch) {
                    DB::table($table)->insert($batch);
                    $rows[$table] = [];
                }
            }
        }
        fclose($file);

        return self::SUCCESS;
    }

    /**
     * @return list<array{string, string}> section and code; every other code has a cap, which is counted under a lock
     */
    private function sections(string $school, string $year): array
    {
        $book = new CodeBook(new KeyedStream(str_repeat('bench', 7), 'codes'), [], 0, TryCounter::codesADay());
        $codes = [];
        for ($i = 0; $i < self::SECTIONS; $i++) {
            $code = $book->draw()->symbols;
            $section = (new BenchList())->section($school, $year, $i, $code, $i % 2 === 0 ? 1000 : null);
            $codes[] = [$section, $code];
        }

        return $codes;
    }
}
