<?php

declare(strict_types=1);

namespace Tests\Architecture;

/**
 * Which folder may use which: the one place that says so. The static analysis keeps each folder to its line, and
 * RoomsTest draws what is really used and fails on a circle.
 *
 * A folder uses only folders that stand above it here.
 */
final class Rooms
{
    public const CORE = [
        'Path' => [],
        'Credential' => [],
        'Json' => [],
        'Storage' => [],
        'People' => ['Credential'],
        'Manifest' => ['Path', 'Json'],
        'Connection' => ['Path', 'Credential', 'Json', 'Storage', 'Manifest'],
        'Diagnosis' => ['Path', 'Credential', 'Connection'],
        'Web' => ['Credential'],
        'Hosting' => ['Path', 'Credential', 'Json', 'Connection', 'Web'],
        'Intake' => ['Path', 'Connection'],
        'Letter' => ['Path', 'Credential', 'Connection', 'Intake'],
        'Reach' => ['Path', 'Json', 'Manifest', 'Connection'],
        'Proof' => ['Path', 'Storage', 'Manifest', 'Connection', 'Hosting', 'Reach'],
        'DocumentRoot' => ['Path', 'Manifest', 'Connection', 'Web', 'Proof'],
        'Reference' => ['Json', 'Manifest'],
        'Upload' => ['Storage'],
        'Package' => ['Path', 'Json', 'Storage', 'Manifest', 'Reference'],
        'Plan' => ['Path', 'Json', 'Manifest'],
        'Transfer' => ['Path', 'Json', 'Manifest', 'Connection'],
        'Backup' => ['Path', 'Storage', 'Manifest', 'Connection', 'Transfer'],
        'File' => [],
        'Deployment' => ['Path', 'Storage', 'Manifest', 'Web', 'Plan', 'Transfer', 'Backup'],
    ];

    public const APP = [
        'Text' => [],
        'Failure' => [],
        'Models' => ['Text'],
        'Record' => ['Models'],
        'Storage' => ['Models'],
        'People' => ['Failure', 'Models', 'Record'],
        'Hosting' => ['Failure', 'Models'],
        'Packages' => ['Failure', 'Models', 'Record'],
        'Sites' => ['Text', 'Models'],
        'FtpUsers' => ['Text', 'Failure', 'Models', 'Record', 'Hosting'],
        'Reach' => ['Failure', 'Models', 'Hosting', 'FtpUsers'],
        'Accounts' => ['Text', 'Failure', 'Models', 'Record', 'Storage', 'Hosting', 'Sites', 'FtpUsers'],
        'Backups' => ['Failure', 'Models', 'Record', 'Storage', 'Hosting'],
        'Deployments' => [
            'Text',
            'Failure',
            'Models',
            'Record',
            'Storage',
            'Hosting',
            'Packages',
            'FtpUsers',
            'Accounts',
            'Backups',
        ],
        'Removal' => ['Text', 'Failure', 'Models', 'Record', 'FtpUsers'],
        'Errands' => [
            'Failure',
            'Models',
            'Storage',
            'Hosting',
            'Packages',
            'FtpUsers',
            'Reach',
            'Accounts',
            'Removal',
        ],
        'Today' => ['Text', 'Models'],
        'Watch' => [
            'Text',
            'Failure',
            'Models',
            'Record',
            'Storage',
            'Packages',
            'FtpUsers',
            'Accounts',
            'Backups',
            'Deployments',
            'Removal',
            'Errands',
            'Today',
        ],
        // What a request or a command names, it asks of the rooms above; nothing asks of these three.
        'Http' => [
            'Text',
            'Failure',
            'Models',
            'Record',
            'Storage',
            'People',
            'Packages',
            'Sites',
            'FtpUsers',
            'Reach',
            'Accounts',
            'Backups',
            'Deployments',
            'Removal',
            'Errands',
            'Today',
        ],
        'Console' => [
            'Text',
            'Failure',
            'Models',
            'Record',
            'People',
            'Packages',
            'FtpUsers',
            'Reach',
            'Accounts',
            'Backups',
            'Deployments',
            'Watch',
        ],
        'Providers' => ['Text', 'Failure', 'People', 'Hosting', 'Packages', 'Watch'],
    ];
}
