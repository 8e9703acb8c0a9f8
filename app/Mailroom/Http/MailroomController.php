<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Compose;
use App\Mailroom\Http\Wishes\MessagesWish;
use App\Mailroom\LetterFiles;
use App\Mailroom\MessageDesk;
use App\Mailroom\Secrets;
use App\Mailroom\Views\MessageLine;
use App\Mailroom\Views\MessagePage;
use App\Models\OutgoingMessage;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\FileOut;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vantrel\Core\Plan\Refusal;

/** All mail and texts of a school: what became of each, and what a person can do about it. */
final readonly class MailroomController
{
    public function __construct(private MessageDesk $desk) {}

    #[Answers(MessagePage::class, 'Messages of a school, newest first')]
    #[Takes(MessagesWish::class)]
    public function index(School $school, Request $request): MessagePage
    {
        return $this->desk->page($school, Wishes::of(MessagesWish::class, $request));
    }

    #[Answers(MessageLine::class, 'One message')]
    public function show(OutgoingMessage $message): MessageLine
    {
        return MessageLine::of($message, $this->desk->bounced($message), LetterFiles::names($message->mailing_id));
    }

    #[Answers('file', 'A message as its receiver sees it: a page that can do nothing and fetches nothing')]
    public function html(OutgoingMessage $message): Response
    {
        $page = Secrets::forOthers(Compose::html($message));

        return response($page, 200, [
            'Content-Type' => 'text/html; charset=utf-8',
            'Content-Security-Policy' =>
                "default-src 'none'; style-src 'unsafe-inline'; img-src data:; frame-ancestors 'self'; sandbox",
        ]);
    }

    #[Answers('file', 'A message as a mail program keeps it (RFC 5322)')]
    public function eml(OutgoingMessage $message): BinaryFileResponse
    {
        if ($message->via !== 'mail') {
            throw new Refusal('A text message is no mail.');
        }
        $copy = $message->replicate()->setAttribute('id', $message->id);
        $copy->subject = Secrets::forOthers($message->subject);
        $copy->text = Secrets::forOthers($message->text);
        $copy->html = $message->html === null ? null : Secrets::forOthers($message->html);
        $path = FileOut::scratch();
        file_put_contents($path, Compose::email($copy)->toString());

        return FileOut::response($path, "$message->subject.eml", 'message/rfc822');
    }

    #[Answers(MessageLine::class, 'Send a message again that did not go, or came back')]
    public function again(OutgoingMessage $message): MessageLine
    {
        $again = $this->desk->again($message);

        return MessageLine::of($again, $this->desk->bounced($again));
    }

    #[Answers(MessageLine::class, 'What was amiss with a message has been looked at')]
    public function settle(OutgoingMessage $message): MessageLine
    {
        $this->desk->settle($message);

        return $this->show($message->refresh());
    }

    #[Answers(MessageLine::class, 'Stop a message that waits')]
    public function stop(OutgoingMessage $message, Request $request): MessageLine
    {
        $this->desk->stop($message, Person::signedIn($request));

        return $this->show($message->refresh());
    }
}
