<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\Bounce;
use Vantrel\Core\Mailroom\TextParts;

// Reports of undelivered mail, written by Python’s email package (python3, an independent program) in the shapes that
// RFC 3464 allows; and the example of its appendix E.1, from memory and with addresses of .example.

/** @param  array<string, mixed>  $wish */
function pythonReport(array $wish): string
{
    $script = <<<'PY'
    import json, sys
    from email.message import EmailMessage, Message
    from email.mime.multipart import MIMEMultipart
    from email.mime.text import MIMEText
    from email.mime.message import MIMEMessage
    from email import encoders
    w = json.load(sys.stdin)
    report = MIMEMultipart('report', **{'report-type': 'delivery-status'})
    report['From'] = 'postmaster@mx.example'; report['To'] = 'returned@school.example'
    report['Subject'] = 'Undelivered'
    report.attach(MIMEText(w['text'], 'plain', w.get('charset', 'utf-8')))
    status = Message(); status['Content-Type'] = 'message/delivery-status'
    groups = []
    for group in w['groups']:
        m = Message()
        for name, value in group: m[name] = value
        groups.append(m)
    status.set_payload(groups)
    report.attach(status)
    original = EmailMessage(); original['Message-ID'] = w['id']; original['Subject'] = 'x' * 200 + ' Ünï'
    original['To'] = w['to']; original.set_content('body')
    if w['how'] == 'whole': report.attach(MIMEMessage(original))
    else:
        part = Message(); part['Content-Type'] = 'text/rfc822-headers'
        part.set_payload(original.as_bytes().decode('ascii').split('\n\n')[0] + '\n')
        if w['how'] == 'base64': encoders.encode_base64(part)
        report.attach(part)
    raw = report.as_bytes()
    if w.get('crlf'): raw = raw.replace(b'\n', b'\r\n')
    sys.stdout.buffer.write(raw)
    PY;
    $process = proc_open(['python3', '-c', $script], [['pipe', 'r'], ['pipe', 'w'], STDERR], $pipes);
    fwrite($pipes[0], json_encode($wish, JSON_THROW_ON_ERROR));
    fclose($pipes[0]);
    $raw = (string) stream_get_contents($pipes[1]);
    proc_close($process);

    return $raw;
}

it('reads a report however its parts are written', function (string $how, bool $crlf): void {
    $bounce = Bounce::read(
        pythonReport([
            'text' => "It could not be delivered. Content-Type: message/delivery-status\n\nAction: failed",
            'groups' => [
                [['Reporting-MTA', 'dns; mx.example'], ['Arrival-Date', 'Fri, 27 Nov 2026 09:00:00 +0000']],
                [['Final-Recipient', 'rfc822; other@shoremail.example'], ['Action', 'delayed'], ['Status', '4.2.0']],
                [
                    ['Original-Recipient', 'rfc822; ada@shoremail.example'],
                    ['Final-Recipient', 'rfc822; ada@shoremail.example'],
                    ['Action', 'failed'],
                    ['Status', '5.2.2 (mailbox full)'],
                    ['Diagnostic-Code', 'smtp; 552 5.2.2 over quota'],
                ],
            ],
            'id' => '<01k00000000000000000000000@school.example>',
            'to' => 'ada@shoremail.example',
            'how' => $how,
            'crlf' => $crlf,
        ]),
    );
    expect([$bounce?->messageId, $bounce?->to, $bounce?->status, $bounce?->said, $bounce?->sentence()])->toBe([
        '01k00000000000000000000000@school.example',
        'ada@shoremail.example',
        '5.2.2',
        '552 5.2.2 over quota',
        'The mailbox is full.',
    ]);
})->with([['whole', false], ['headers', false], ['base64', false], ['whole', true], ['headers', true]]);

it('takes for the address the one we wrote to, not the one a mailbox passed it on to', function (): void {
    $bounce = Bounce::read(
        pythonReport([
            'text' => 'x',
            'groups' => [
                [['Reporting-MTA', 'dns; mx.example']],
                [
                    ['Final-Recipient', 'rfc822; ada.private@elsewhere.example'],
                    ['Original-Recipient', 'rfc822; ada@shoremail.example'],
                    ['Action', 'failed'],
                    ['Status', '5.1.1'],
                ],
            ],
            'id' => '<a@b.example>',
            'to' => 'ada@shoremail.example',
            'how' => 'headers',
        ]),
    );
    expect($bounce?->to)->toBe('ada@shoremail.example');
});

it('takes nothing for a failure that is only late, or no report, or about nothing', function (): void {
    $report = fn(string $action, string $status, string $id = '<a@b.example>'): ?Bounce => Bounce::read(
        pythonReport([
            'text' => 'x',
            'groups' => [
                [['Reporting-MTA', 'dns; mx.example']],
                [['Final-Recipient', 'rfc822; a@b.example'], ['Action', $action], ['Status', $status]],
            ],
            'id' => $id,
            'to' => 'a@b.example',
            'how' => 'headers',
        ]),
    );
    expect($report('failed', '5.1.1'))
        ->not->toBeNull()
        ->and($report('delayed', '4.4.1'))
        ->toBeNull()
        ->and($report('failed', '4.4.7'))
        ->toBeNull()
        ->and($report('delivered', '2.0.0'))
        ->toBeNull()
        ->and(Bounce::read("Subject: Away\r\n\r\nI am on holiday.\r\n"))
        ->toBeNull()
        ->and(Bounce::read(''))
        ->toBeNull()
        ->and(Bounce::read(str_repeat("Content-Type: multipart/report; boundary=a\n\n--a\n", 200)))
        ->toBeNull();
});

// RFC 3464, appendix E.1 (from memory; its shape, with addresses of .example).
it('reads the example of the standard', function (): void {
    $raw = <<<'EML'
    Date: Thu, 7 Jul 1994 17:16:05 -0400
    From: Mail Delivery Subsystem <MAILER-DAEMON@cs.utk.example>
    Message-Id: <199407072116.RAA14128@cs.utk.example>
    Subject: Returned mail: Cannot send message for 5 days
    To: <owner-info-mime@cs.utk.example>
    MIME-Version: 1.0
    Content-Type: multipart/report; report-type=delivery-status;
          boundary="RAA14128.773615765/CS.UTK.EXAMPLE"

    --RAA14128.773615765/CS.UTK.EXAMPLE

    The original message was received at Sat, 2 Jul 1994 17:10:28 -0400

    --RAA14128.773615765/CS.UTK.EXAMPLE
    content-type: message/delivery-status

    Reporting-MTA: dns; cs.utk.example

    Original-Recipient: rfc822;louisl@larry.slip.umd.example
    Final-Recipient: rfc822;louisl@larry.slip.umd.example
    Action: failed
    Status: 5.0.0
    Diagnostic-Code: smtp; 426 connection timed out
    Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400

    --RAA14128.773615765/CS.UTK.EXAMPLE
    content-type: message/rfc822

    Message-ID: <original@cs.utk.example>
    Subject: hello

    --RAA14128.773615765/CS.UTK.EXAMPLE--
    EML;
    $bounce = Bounce::read($raw);
    expect([$bounce?->messageId, $bounce?->to, $bounce?->sentence()])->toBe([
        'original@cs.utk.example',
        'louisl@larry.slip.umd.example',
        'It came back.',
    ]);
});

// 3GPP TS 23.038, 6.2.1 and TS 23.040, 9.2.3.24.1 (from memory): 160 septets, 153 in parts; 70 and 67 UTF-16 units.
it('counts the parts of a text message', function (string $text, int $parts): void {
    expect(TextParts::count($text))->toBe($parts);
})->with([
    ['', 1],
    [str_repeat('a', 160), 1],
    [str_repeat('a', 161), 2],
    [str_repeat('a', 306), 2],
    // An escape and what it leads stay together, and so do the two units of a picture: common practice, no source.
    [str_repeat('a', 152) . '€' . str_repeat('a', 151), 2],
    [str_repeat('a', 152) . '€' . str_repeat('a', 152), 3],
    [str_repeat('я', 66) . '😀' . str_repeat('я', 65), 2],
    [str_repeat('я', 66) . '😀' . str_repeat('я', 66), 3],
    [str_repeat('a', 307), 3],
    [str_repeat('é', 160), 1],
    [str_repeat('€', 80), 1],
    [str_repeat('€', 81), 2],
    [str_repeat('ê', 70), 1],
    [str_repeat('ê', 71), 2],
    [str_repeat('漢', 134), 2],
    [str_repeat('漢', 135), 3],
    [str_repeat("\u{1F600}", 35), 1],
    [str_repeat("\u{1F600}", 36), 2],
]);
