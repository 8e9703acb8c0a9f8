<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Http\Wishes\MessagesWish;
use App\Mailroom\Views\MessageLine;
use App\Mailroom\Views\MessagePage;
use App\Models\OutgoingMessage;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;

final class MailroomController
{
    private const PAGE = 50;

    #[Answers(MessagePage::class, 'Messages a school has sent, newest first')]
    #[Takes(MessagesWish::class)]
    public function index(School $school, Request $request): MessagePage
    {
        $wish = Wishes::of(MessagesWish::class, $request);
        /** @var Collection<int, OutgoingMessage> $messages */
        $messages = OutgoingMessage::query()
            ->where('school_id', $school->id)
            ->when($wish->after !== null, fn($q) => $q->where('id', '<', $wish->after))
            ->orderByDesc('id')
            ->limit(self::PAGE + 1)
            ->get();

        return new MessagePage(
            array_values($messages->take(self::PAGE)->map(MessageLine::of(...))->all()),
            $messages->count() > self::PAGE ? $messages->get(self::PAGE - 1)?->id : null,
        );
    }

    #[Answers(MessageLine::class, 'One message')]
    public function show(OutgoingMessage $message): MessageLine
    {
        return MessageLine::of($message);
    }
}
