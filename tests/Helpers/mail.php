<?php

declare(strict_types=1);

/** What Python's parser reads in a message. @return array<string, mixed> */
function asPythonReads(string $eml): array
{
    $script = <<<'PY'
    import email, email.policy, json, re, sys
    m = email.message_from_bytes(sys.stdin.buffer.read(), policy=email.policy.default)
    body = lambda kind: m.get_body((kind,)).get_content() if m.get_body((kind,)) else None
    print(json.dumps({
        'defects': [str(d) for d in m.defects], 'type': m.get_content_type(), 'subject': m['subject'],
        'to': [a.addr_spec for a in m['to'].addresses], 'from': [a.addr_spec for a in m['from'].addresses],
        'from_name': m['from'].addresses[0].display_name, 'id': m['message-id'], 'auto': m['auto-submitted'],
        'date': m['date'].datetime.isoformat(), 'headers': sorted(set(k.lower() for k in m.keys())),
        'files': [[a.get_filename(), a.get_content_type(), len(a.get_content())] for a in m.iter_attachments()],
        'addresses': sorted(set(re.findall(r'[\w.+-]+@[\w.-]+', ' '.join(str(v) for k, v in m.items() if k.lower() not in ('message-id', 'subject', 'from'))))),
        'plain': body('plain'), 'html': body('html')}))
    PY;
    $process = proc_open(['python3', '-c', $script], [['pipe', 'r'], ['pipe', 'w'], STDERR], $pipes);
    fwrite($pipes[0], $eml);
    fclose($pipes[0]);
    $json = stream_get_contents($pipes[1]);
    proc_close($process);

    return json_decode((string) $json, true, 512, JSON_THROW_ON_ERROR);
}
