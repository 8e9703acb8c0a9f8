<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use Symfony\Component\Mailer\Envelope;
use Symfony\Component\Mailer\Exception\InvalidArgumentException;
use Symfony\Component\Mailer\Exception\TransportExceptionInterface;
use Symfony\Component\Mailer\Exception\UnexpectedResponseException;
use Symfony\Component\Mailer\Transport\Smtp\EsmtpTransport;
use Symfony\Component\Mailer\Transport\Smtp\Stream\SocketStream;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Exception\ExceptionInterface as MimeException;

/**
 * The SMTP server of the installation (RFC 5321). It notes whether the end of a message has been sent: until then
 * nothing has been handed over, whatever happens.
 */
final class MailGateway extends EsmtpTransport
{
    private const END = "\r\n.\r\n";

    /** What a server answers where it does not know us, whatever the message (RFC 4954, 6, and 4: no way in common). */
    private const OF_US = [504, 530, 534, 535, 538];

    private const NOT_LET_IN = 'The mail server does not let us sign in. Until the settings are right, this waits.';

    private bool $ended = false;

    public static function configured(): self
    {
        $scheme = (string) config('vantrel.mail.scheme');
        $gateway = new self(
            (string) config('vantrel.mail.host'),
            (int) config('vantrel.mail.port'),
            $scheme === 'smtps' ? true : null,
        );
        $gateway->setAutoTls(!in_array((string) config('vantrel.mail.host'), ['127.0.0.1', 'localhost'], true));
        $gateway->setUsername((string) config('vantrel.mail.username'));
        $gateway->setPassword((string) config('vantrel.mail.password'));
        $gateway->setLocalDomain(parse_url((string) config('app.url'), PHP_URL_HOST) ?: '[127.0.0.1]');
        $stream = $gateway->getStream();
        if ($stream instanceof SocketStream) {
            $stream->setTimeout(20);
            // The end of a message is a small packet of its own: held back until the last one is acknowledged, it costs
            // 40 ms a message.
            $stream->setStreamOptions(['socket' => ['tcp_nodelay' => true]]);
        }

        return $gateway;
    }

    public function executeCommand(string $command, array $codes): string
    {
        $this->ended = $this->ended || $command === self::END;

        return parent::executeCommand($command, $codes);
    }

    public function hand(OutgoingMessage $message): Handed
    {
        $this->ended = false;
        try {
            $email = Compose::email($message);
            $this->send($email, new Envelope(new Address(self::sender()), [new Address($message->to_address)]));

            return new Handed(Fate::Taken);
        } catch (UnexpectedResponseException $e) {
            $code = (int) $e->getCode();
            // 421 ends the talk, whatever the message (RFC 5321, 3.8).
            if ($code === 421 || in_array($code, self::OF_US, true)) {
                $this->stop();

                return new Handed(Fate::Unreached, $code === 421 ? '' : self::NOT_LET_IN);
            }
            return new Handed($code >= 500 && $code < 600 ? Fate::Never : Fate::Later, self::sentence($e));
        } catch (TransportExceptionInterface $e) {
            $this->stop();
            if ($this->hasEnded()) {
                return new Handed(Fate::Unknown);
            }

            return new Handed(
                Fate::Unreached,
                in_array((int) $e->getCode(), self::OF_US, true) ? self::NOT_LET_IN : '',
            );
        } catch (MimeException) {
            return new Handed(Fate::Never, 'That is no address a mail can be sent to.');
        } catch (InvalidArgumentException) {
            // RFC 6531: a name before the @ in other letters than English ones is for servers that say they know it.
            return new Handed(Fate::Never, 'The mail server does not know addresses with such letters before the @.');
        }
    }

    private function hasEnded(): bool
    {
        return $this->ended;
    }

    /** Where mail that comes back goes to. */
    private static function sender(): string
    {
        return (string) (config('vantrel.mail.bounces') ?: config('mail.from.address'));
    }

    private static function sentence(UnexpectedResponseException $e): string
    {
        preg_match('/with message "(.*)"\.?$/s', $e->getMessage(), $m);
        $said = trim((string) preg_replace('/\s+/', ' ', $m[1] ?? $e->getMessage()));

        return 'The mail server says: ' . $said;
    }
}
