<?php

declare(strict_types=1);

namespace Tests\Support;

use Closure;
use CurlHandle;
use PHPUnit\Framework\Assert;

/** A real web server with eight workers on a database of its own, and clients that keep their cookies. */
final class RealServer
{
    /** @param  resource  $process */
    private function __construct(private $process, public readonly string $address) {}

    public static function start(string $database): self
    {
        [$process, $port] = self::answering(function () use ($database): array {
            $port = self::freePort();
            $environment = [
                ...getenv(),
                'DB_DATABASE' => $database,
                'CACHE_STORE' => 'database',
                'SESSION_DRIVER' => 'database',
                'QUEUE_CONNECTION' => 'sync',
                'PHP_CLI_SERVER_WORKERS' => '8',
                'APP_URL' => "http://127.0.0.1:$port",
            ];
            // A session of its own, so that the workers end with their parent.
            $process = proc_open(
                [
                    'setsid',
                    PHP_BINARY,
                    '-d',
                    'variables_order=EGPCS',
                    '-S',
                    "127.0.0.1:$port",
                    base_path('vendor/laravel/framework/src/Illuminate/Foundation/resources/server.php'),
                ],
                [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
                $pipes,
                public_path(),
                $environment,
            );

            return [$process, [$port], [$process, $port]];
        }, '/dev/null');
        for ($i = 0; $i < 300 && @file_get_contents("http://127.0.0.1:$port/up") !== 'up'; $i++) {
            usleep(100_000);
        }

        return new self($process, "http://127.0.0.1:$port");
    }

    /**
     * Starts a program until it answers at all of its ports: another may take one of them between its being found
     * free and its being bound.
     *
     * @template T
     *
     * @param  Closure(): array{resource|false, list<int>, T}  $start
     * @param  string  $said file with what the program says of itself
     * @return T
     */
    public static function answering(Closure $start, string $said)
    {
        for ($try = 1; $try <= 3; $try++) {
            [$process, $ports, $started] = $start();
            Assert::assertIsResource($process);
            $waiting = $ports;
            for ($n = 0; $n < 1000 && $waiting !== [] && proc_get_status($process)['running']; $n++) {
                $waiting = array_filter(
                    $waiting,
                    fn(int $port): bool => @fsockopen('127.0.0.1', $port, $code, $why, 1.0) === false,
                );
                usleep($waiting === [] ? 0 : 20_000);
            }
            if ($waiting === []) {
                return $started;
            }
            proc_terminate($process, SIGKILL);
            proc_close($process);
        }
        Assert::fail('It does not answer at its ports: ' . (is_file($said) ? (string) file_get_contents($said) : ''));
    }

    /**
     * Not of those that the system hands to whoever calls out: another process could be given it before it is bound,
     * and whoever waits for it by calling it could be talking to itself.
     */
    public static function freePort(): int
    {
        for ($n = 0; $n < 100; $n++) {
            $port = random_int(15_000, 32_000);
            $socket = @stream_socket_server("tcp://127.0.0.1:$port");
            if (is_resource($socket)) {
                fclose($socket);

                return $port;
            }
        }
        Assert::fail('No port is free.');
    }

    public function stop(): void
    {
        posix_kill(-proc_get_status($this->process)['pid'], SIGTERM);
        proc_close($this->process);
    }

    public function client(string $uri = '/api/entrance'): CurlHandle
    {
        $handle = curl_init($this->address . $uri);
        Assert::assertInstanceOf(CurlHandle::class, $handle);
        curl_setopt_array($handle, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEFILE => '',
            CURLOPT_TIMEOUT => 120,
            CURLOPT_HTTPHEADER => ['Accept: application/json'],
        ]);

        return $handle;
    }

    /**
     * Makes a client ready for its next request.
     *
     * @param  array<string, mixed>|null  $body JSON to post, null to get
     */
    public function next(CurlHandle $handle, string $uri, ?array $body = null, string $method = 'POST'): CurlHandle
    {
        $xsrf = '';
        foreach (curl_getinfo($handle, CURLINFO_COOKIELIST) as $cookie) {
            $parts = explode("\t", $cookie);
            $xsrf = $parts[5] === 'XSRF-TOKEN' ? urldecode($parts[6]) : $xsrf;
        }
        curl_setopt_array($handle, [
            CURLOPT_URL => $this->address . $uri,
            CURLOPT_CUSTOMREQUEST => $body === null ? 'GET' : $method,
            CURLOPT_POSTFIELDS =>
                $body === null ? null : json_encode($body === [] ? new \stdClass() : $body, JSON_THROW_ON_ERROR),
            CURLOPT_HTTPHEADER => ['Content-Type: application/json', 'Accept: application/json', "X-XSRF-TOKEN: $xsrf"],
        ]);
        if ($body === null) {
            curl_setopt($handle, CURLOPT_HTTPGET, true);
        }

        return $handle;
    }

    /** One request, and its status. */
    public function send(CurlHandle $handle): int
    {
        curl_exec($handle);

        return (int) curl_getinfo($handle, CURLINFO_RESPONSE_CODE);
    }

    /**
     * Sends all requests at once, so many at a time.
     *
     * @param  list<CurlHandle>  $handles
     * @return list<int> their statuses
     */
    public static function allAtOnce(array $handles, int $atATime = 1000): array
    {
        $multi = curl_multi_init();
        $waiting = $handles;
        $open = 0;
        $add = function () use (&$waiting, &$open, $multi, $atATime): void {
            while ($open < $atATime && $waiting !== []) {
                curl_multi_add_handle($multi, array_shift($waiting));
                $open++;
            }
        };
        $add();
        do {
            curl_multi_exec($multi, $running);
            while (($done = curl_multi_info_read($multi)) !== false) {
                curl_multi_remove_handle($multi, $done['handle']);
                $open--;
                $add();
            }
            if ($running > 0) {
                curl_multi_select($multi, 0.2);
            }
        } while ($open > 0 || $waiting !== []);
        curl_multi_close($multi);

        return array_map(fn(CurlHandle $h): int => (int) curl_getinfo($h, CURLINFO_RESPONSE_CODE), $handles);
    }
}
