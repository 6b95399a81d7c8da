#!/usr/bin/env bash
# One queue worker, followed by another when it ends, however it ended: worker.sh ROOT QUEUE DB-HOST DB-PORT
# While the database does not answer none is started: each would end at once and say so at length.
while :; do
    until (exec 3<>"/dev/tcp/$3/$4") 2>/dev/null; do sleep 1; done
    php "$1/artisan" queue:work --queue="$2" --sleep=0 --tries=1 --timeout=0 --memory=256 --quiet
    sleep 0.2
done
