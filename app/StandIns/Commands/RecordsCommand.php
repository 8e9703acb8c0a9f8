<?php

declare(strict_types=1);

namespace App\StandIns\Commands;

use App\Models\RecordSource;
use App\Models\School;
use App\StandIns\RecordMaker;
use App\StandIns\RecordSystem;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Crypt;

/** Makes the data of the stand-in for the schools' record, and has a school of the demo ask it. */
final class RecordsCommand extends Command
{
    private const CLIENT = 'vantrel';

    protected $signature =
        'vantrel:stand-in-records {file : where its data is kept} {--school=primary : code of the school} {--at= : ' .
        'host and port it answers at}';

    protected $description = 'Make the data of the stand-in for a school’s record';

    public function handle(RecordMaker $maker): int
    {
        if (!config('vantrel.stand_ins')) {
            $this->error('Stand-ins are for the demo and the tests; here they are switched off.');

            return self::FAILURE;
        }
        $school = School::query()->where('code', (string) $this->option('school'))->first();
        if ($school === null) {
            $this->error('There is no such school.');

            return self::INVALID;
        }
        $file = (string) $this->argument('file');
        $secret = bin2hex(random_bytes(16));
        if (is_file($file)) {
            // Started again, it goes on with what it had.
            $kept = (array) json_decode((string) file_get_contents($file), true);
            $client = (array) ($kept['client'] ?? []);
            $secret = is_string($client['secret'] ?? null) ? $client['secret'] : $secret;
            $records = $kept['records'] ?? [];
        } else {
            $records = $maker->of($school, now()->format('Y-m-d\TH:i:s.v\Z'));
        }
        file_put_contents(
            $file,
            json_encode(
                ['client' => ['id' => self::CLIENT, 'secret' => $secret], 'records' => $records],
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
            ),
        );
        chmod($file, 0600);
        $at = $this->option('at');
        if (is_string($at) && $at !== '') {
            $source = RecordSource::query()->find($school->id) ?? new RecordSource(['school_id' => $school->id]);
            $source
                ->fill([
                    'base_url' => "http://$at" . rtrim(RecordSystem::BASE, '/'),
                    'token_url' => "http://$at/token",
                    'client_id' => self::CLIENT,
                    'sealed_key' => Crypt::encryptString($secret),
                    'changed_at' => $source->changed_at ?? now(),
                ])
                ->save();
        }

        return self::SUCCESS;
    }
}
