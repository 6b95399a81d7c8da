<?php

declare(strict_types=1);

$absolute = static fn (?string $path): ?string => match (true) {
    $path === null || $path === '' => null,
    str_starts_with($path, '/') => $path,
    default => base_path($path),
};

return [
    // Everything that is written: contents, backups, runs, uploads, locks.
    'var' => $absolute(env('CELLARIUM_VAR', 'var')),

    // Which installation this is: a mark in each directory that may be a mount of its own has to match it.
    'identity' => (string) env('CELLARIUM_IDENTITY', ''),

    // Whose name and colour sheets for clients carry.
    'agency' => [
        'name' => (string) env('CELLARIUM_AGENCY', ''),
        'colour' => strtolower((string) env('CELLARIUM_AGENCY_COLOUR', '#1c6b64')),
    ],

    'store' => [
        // The keys that contents are sealed with; a copy of this file belongs somewhere else.
        'key_file' => $absolute(env('CELLARIUM_KEY_FILE'))
            ?? $absolute(env('CELLARIUM_VAR', 'var')).'/keys/contents.json',
        // A store that speaks S3; none, and contents lie on the disk, where no bucket is named.
        's3' => [
            'endpoint' => (string) env('CELLARIUM_S3_ENDPOINT', ''),
            'region' => (string) env('CELLARIUM_S3_REGION', 'us-east-1'),
            'bucket' => (string) env('CELLARIUM_S3_BUCKET', ''),
            'prefix' => (string) env('CELLARIUM_S3_PREFIX', ''),
            'key' => (string) env('CELLARIUM_S3_KEY', ''),
            'secret' => (string) env('CELLARIUM_S3_SECRET', ''),
        ],
    ],

    'hosts_file' => $absolute(env('CELLARIUM_HOSTS_FILE')),
    'authorities' => $absolute(env('CELLARIUM_AUTHORITIES')),
    'live_suffix' => (string) env('CELLARIUM_LIVE_SUFFIX', ''),

    // Connections to one account at a time; many hosts forbid more than a few.
    // Written as CELLARIUM_LANES until 2026.
    'connections' => (int) env('CELLARIUM_CONNECTIONS', env('CELLARIUM_LANES', 4)),
    // Kilobytes a second over all connections to one host; 0 for as many as it can.
    'rate_limit' => (int) env('CELLARIUM_RATE_LIMIT', 0),
    // Connections to one host at a time, over all its accounts and all processes of this machine.
    'host_connections' => (int) env('CELLARIUM_HOST_CONNECTIONS', 8),
    // Seconds after which a connection that nobody uses is closed.
    'idle_seconds' => 30,
    // Hours after which the sweep looks at an account again.
    'sweep_hours' => (int) env('CELLARIUM_SWEEP_HOURS', 6),

    // Days without use after which an FTP user counts as idle.
    'idle_days' => (int) env('CELLARIUM_IDLE_DAYS', 30),

    // Hours after which everybody signs in anew, used or not.
    'session_hours' => (int) env('CELLARIUM_SESSION_HOURS', 12),
    // Who needs a second factor: nobody, maintainers, agency or everybody.
    'second_factor' => (string) env('CELLARIUM_SECOND_FACTOR', 'maintainers'),

    // Seconds after which a request is written down as slow.
    'slow_seconds' => (float) env('CELLARIUM_SLOW_SECONDS', 2),

    // Seconds a page waits for a worker's answer before it shows that it is going on.
    'errand_seconds' => 1.2,
    // Pages that wait so at the same time, of those that bin/php-fpm.conf has processes for; half of them for one host.
    'waiting_pages' => 6,
    // Downloads that are sent while they come, at the same time, of those that it has processes for transfers for.
    'passing_downloads' => 8,

    // Seconds that a run waits for a person where some files could not be sent; then it goes back. 0 for at once.
    'decision_seconds' => (int) env('CELLARIUM_DECISION_SECONDS', 1800),
    // Seconds after a run when what was sent last is looked at once more, so that it is not read again; 0 for not.
    'settle_seconds' => (float) env('CELLARIUM_SETTLE_SECONDS', 2),
    // Seconds that what is set aside stays reachable once the new pages are there, for whoever has an old one.
    'linger_seconds' => (float) env('CELLARIUM_LINGER_SECONDS', 1),

    // Of the addresses a deployment changed, how many in a hundred are fetched to prove it.
    'proof_share' => (int) env('CELLARIUM_PROOF_SHARE', 100),
    // Of the files known of a site, how many in a hundred may be missing from a listing without a question.
    'collapse_share' => (int) env('CELLARIUM_COLLAPSE_SHARE', 50),
    // Whether files that no address shows are proven by hashes that the server computes, where it can.
    'server_hashes' => (bool) env('CELLARIUM_SERVER_HASHES', true),
    // Every so many backups all files are read from the server, whatever is known of them.
    'read_anew' => (int) env('CELLARIUM_READ_ANEW', 10),

    // How much of a server is looked at in one go.
    'survey' => [
        'entries' => (int) env('CELLARIUM_SURVEY_ENTRIES', 500_000),
        'depth' => (int) env('CELLARIUM_SURVEY_DEPTH', 60),
        'seconds' => (int) env('CELLARIUM_SURVEY_SECONDS', 900),
    ],

    'archive' => [
        'entries' => (int) env('CELLARIUM_ARCHIVE_ENTRIES', 100_000),
        'bytes' => (int) env('CELLARIUM_ARCHIVE_BYTES', 4_000_000_000),
        'ratio' => (int) env('CELLARIUM_ARCHIVE_RATIO', 250),
    ],

    // Bytes that an upload may have, in pieces.
    'upload_bytes' => (int) env('CELLARIUM_UPLOAD_BYTES', 2_147_483_648),

    // Whether backups are begun by themselves when they are due.
    'scheduled_backups' => (bool) env('CELLARIUM_SCHEDULED_BACKUPS', true),
    // Cellarium's own backup, each night: where it goes, with what it is sealed, and who writes the database out.
    'self_backup' => [
        'to' => (string) env('CELLARIUM_SELF_BACKUP_TO', ''),
        'passphrase_file' => $absolute(env('CELLARIUM_SELF_BACKUP_PASSPHRASE_FILE')) ?? base_path('.passphrase'),
        's3' => [
            'endpoint' => (string) env('CELLARIUM_SELF_BACKUP_S3_ENDPOINT', ''),
            'region' => (string) env('CELLARIUM_SELF_BACKUP_S3_REGION', 'us-east-1'),
            'key' => (string) env('CELLARIUM_SELF_BACKUP_S3_KEY', ''),
            'secret' => (string) env('CELLARIUM_SELF_BACKUP_S3_SECRET', ''),
        ],
        'database' => [
            'username' => (string) env('DB_BACKUP_USERNAME', ''),
            'password' => (string) env('DB_BACKUP_PASSWORD', ''),
        ],
    ],
    // Days within which all contents are read back once.
    'verify_days' => (int) env('CELLARIUM_VERIFY_DAYS', 14),
    // A document root for rehearsals, and the address it answers at: backups are unpacked there, and their pages
    // fetched.
    'rehearsal' => [
        'root' => $absolute(env('CELLARIUM_REHEARSAL_ROOT')),
        'url' => (string) env('CELLARIUM_REHEARSAL_URL', ''),
    ],

    // Days that the backup before a run stays, whatever the rule of the site says.
    'way_back_days' => 30,

    // Days that files set aside are held.
    'set_aside_days' => 30,

    // Where the simulated host that ships with it listens; the demo world points there.
    'standin' => [
        'ftp_port' => (int) env('CELLARIUM_STANDIN_FTP_PORT', 2121),
        'ssh_port' => (int) env('CELLARIUM_STANDIN_SSH_PORT', 2222),
        'web_port' => (int) env('CELLARIUM_STANDIN_WEB_PORT', 8090),
        'control_port' => (int) env('CELLARIUM_STANDIN_CONTROL_PORT', 8091),
    ],
];
