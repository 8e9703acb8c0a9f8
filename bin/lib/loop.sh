#!/usr/bin/env bash
# Keeps one command running: starts it again a second after it ends, until this script itself is told to stop.
child=
stop() { [ -n "$child" ] && kill -TERM "$child" 2>/dev/null; wait "$child" 2>/dev/null; exit 0; }
trap stop TERM INT
while :; do
  "$@" &
  child=$!
  wait "$child"
  sleep 1
done
