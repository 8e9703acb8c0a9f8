"""An SMTP server that shares nothing with ours (aiosmtpd): keeps each message as a line of JSON in a file.

mail_server.py PORT FILE USER PASSWORD [CERTIFICATE KEY]
"""
import base64
import json
import ssl
import sys
import time

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import AuthResult

port, kept, user, password, *tls = sys.argv[1:]


class Keep:
    async def handle_DATA(self, server, session, envelope):
        with open(kept, 'a') as file:
            file.write(json.dumps({
                'from': envelope.mail_from,
                'to': envelope.rcpt_tos,
                'as': session.auth_data,
                'raw': base64.b64encode(envelope.original_content).decode(),
            }) + '\n')
        return '250 kept'


def let_in(server, session, envelope, mechanism, auth_data):
    right = (auth_data.login, auth_data.password) == (user.encode(), password.encode())
    return AuthResult(success=right, handled=False, auth_data=user if right else None)


context = None
if tls:
    context = ssl.create_default_context(ssl.Purpose.CLIENT_AUTH)
    context.load_cert_chain(*tls)
Controller(
    Keep(), hostname='127.0.0.1', port=int(port), ssl_context=context, enable_SMTPUTF8=False,
    server_kwargs={
        'authenticator': let_in, 'auth_required': True, 'auth_require_tls': False, 'command_call_limit': None,
    },
).start()
time.sleep(600)
