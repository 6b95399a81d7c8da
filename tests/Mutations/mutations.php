<?php

declare(strict_types=1);

/**
 * Lines that keep what is promised: where each stands, what it becomes, and the tests that must see that it is gone.
 *
 * @return array<string, array{file: string, line: string, instead: string, tests: list<string>}>
 */
$core = static fn (string $file, string $line, string $instead, string ...$tests): array => [
    'file' => "core/$file",
    'line' => $line,
    'instead' => $instead,
    'tests' => array_map(
        static fn (string $test): string => str_starts_with($test, '--') ? $test : "tests/Core/$test",
        array_values($tests),
    ),
];

$app = static fn (string $file, string $line, string $instead, string $test, string $filter): array => [
    'file' => "app/$file",
    'line' => $line,
    'instead' => $instead,
    'tests' => ["tests/App/$test.php", "--filter=$filter"],
];

return [
    'what is taken up is ordered once' => $app(
        'Watch/Recovery.php',
        '! isset($taken[self::nameOf($row)]) && ',
        '',
        'RunsTest',
        'ordered_once',
    ),
    'secrets need a fresh sign-in' => $app(
        'Http/Middleware/FreshSignIn.php',
        'if ((new SessionBond($request->session()))->isFresh()) {',
        'if (true) {',
        'SigningInTest',
        'fresh|anew|again',
    ),
    'a client’s person sees one client' => $app(
        'Models/OfClients.php',
        '$client === null || static::onlyOf($query, $client);',
        '',
        'ClientsPersonTest',
        'test_lists_counts_and_relations|test_a_number_in_a_question',
    ),
    'what is one person’s own is nobody else’s' => $app(
        'Models/OfPerson.php',
        '->where($this->qualifyColumn(\'person_id\'), (int) Person::viewer()?->id)',
        '',
        'RoutePermissionsTest',
        'test_what_is_another_persons_own',
    ),
    'two runs at one login take turns' => $core(
        'Work/FairShare.php',
        '! isset($turns[$work->claim->turn ?? \'\'])',
        'true',
        'Work/FairShareTest.php',
    ),
    'no page asks a host' => $app(
        'Hosting/AskingHosts.php',
        'if ($this->isPage && $this->jobs === 0) {',
        'if (false) {',
        'NoPageAsksHostsTest',
        'test_by_no_way',
    ),
    'nothing is removed while the clock is not believed' => $app(
        'Backups/ClockWatch.php',
        '$clock->believedFrom() === null || throw new Problem(self::words($clock));',
        '',
        'ClockTest',
        'test_',
    ),
    'what removes contents needs two witnesses' => $app(
        'Backups/Witnesses.php',
        'if (! $witnesses->agree()) {',
        'if (false) {',
        'EmptinessTest',
        'test_what_does_not_agree',
    ),
    'what undoing needs stays for thirty days' => $app(
        'Backups/Expiry.php',
        "->where('ended_at', '>', now()",
        "->where('ended_at', '<', now()",
        'BackupRulesTest',
        'test_what_undoing',
    ),
    'an edited text is inspected' => $app(
        'Files/TextInspection.php',
        'if ($stop === null || ! $stop->stops()) {',
        'if (true) {',
        'InspectedUploadsTest',
        'test_an_edited_text',
    ),
    'who may overrule the inspection' => $app(
        'Files/TextInspection.php',
        '|| ! Gate::allows(Permission::OverruleInspection->value)',
        '',
        'InspectedUploadsTest',
        'test_a_helper_saves_nothing',
    ),
    'no move brings a secret to visitors' => $app(
        'Files/NewlyPublic.php',
        'if ($address !== null && (',
        'if (false && (',
        'InspectedUploadsTest',
        'test_by_no_name',
    ),
    'a folder that is moved to visitors is looked into' => $app(
        'Files/ChangesByHand.php',
        '|| NewlyPublic::folders($place->account, $steps) !== [];',
        ';',
        'InspectedUploadsTest',
        'test_by_no_name',
    ),
    'what should not answer is asked until it no longer does' => $app(
        'Runs/OpenAddresses.php',
        '$answer->status === 200 && $answer->sha256 === $address->sha256,',
        'false,',
        'WhatVisitorsGetTest',
        'test_a_file_that_should_not_be_public',
    ),
    'a database is written out before it is restored' => $app(
        'Backups/DatabaseRestore.php',
        '$before = $this->before($backup, $name);',
        '$before = $backup;',
        'DatabasesTest',
        'test_it_is_restored_on_its_own',
    ),
    'what is asked of a folder is answered first' => $app(
        'Runs/StartPlan.php',
        'if (app(RunFiles::class)->folder($deployment) !== null) {',
        'if (false) {',
        'InspectedUploadsTest',
        'test_of_a_folder_with_a_start_page',
    ),
    'the list of a backup is read back' => $core(
        'Backup/VerifiedBackup.php',
        '$shelf->holds($name, $manifest) || throw StoreFailure::damagedList($name);',
        '',
        'Backup/VerifiedBackupTest.php',
    ),
    'what has come for a backup is read back' => $core(
        'Backup/VerifiedBackup.php',
        '! $store->isIntact($sha256, $file->size)',
        'false',
        'Backup/VerifiedBackupTest.php',
    ),
    'what a backup takes over is intact' => $core(
        'Backup/BackupTaker.php',
        '&& $this->store->isIntact($entry->sha256, $entry->size);',
        ';',
        'Backup/VerifiedBackupTest.php',
    ),
    'contents in the store are those of their name' => $core(
        'Storage/SealedContentStore.php',
        'return $size === null || $bytes === $size;',
        'return true;',
        'Storage/SealedContentStoreTest.php',
    ),
    'what is sent by hand is read back' => $core(
        'File/FileWork.php',
        'if ($arrived !== $sha256) {',
        'if (false) {',
        'File/FileWorkTest.php',
    ),
    'what is lost by hand is held here first' => $core(
        'File/FileWork.php',
        'return $this->store->isIntact($content->sha256, $content->size)
            ? $content
            : throw StoreFailure::damaged($file->toString());',
        'return $content;',
        'File/FileWorkTest.php',
    ),
    'what was opened is what is replaced' => $core(
        'File/FileWork.php',
        'if ($change->seen?->sha256 !== null && $change->seen->sha256 !== $content->sha256) {',
        'if (false) {',
        'File/FileWorkTest.php',
    ),
    'it is looked at once more before a name is given' => $core(
        'File/FileWork.php',
        '            // What lies there may have been changed while this was sent.
            $this->agreed($change);
',
        '',
        'File/FileWorkTest.php',
    ),
    'a listing that shrank is a question' => $core(
        'Backup/TrustedListing.php',
        'if ($shrinkage !== null) {',
        'if (false) {',
        'Deployment/RunTest.php',
        '--filter=test_listings_that_show_nothing',
    ),
    'the server is as it was planned' => $core(
        'Deployment/Run.php',
        'if ($order->seen !== null && $listed->digest() !== $order->seen) {',
        'if (false) {',
        'Deployment/RunTest.php',
        '--filter=test_it_refuses',
    ),
    'there is room for what is sent' => $core(
        'Deployment/Run.php',
        'if ($room !== null && $needed + $order->spaceBeside > $room) {',
        'if (false) {',
        'Deployment/RunTest.php',
        '--filter=room',
    ),
    'a live page shows the bytes that were sent' => $core(
        'Deployment/LiveProof.php',
        'default => $answer->sha256 === $entry->sha256,',
        'default => true,',
        'Deployment/LiveProofTest.php',
    ),
    'what no page shows is read back' => $core(
        'Deployment/RunProof.php',
        'if ($result->sha256 !== $due[$job->subject]) {',
        'if (false) {',
        'Deployment/RunTest.php',
        '--filter=test_a_program_is_read_back',
    ),
    'what was put back is read back' => $core(
        'Deployment/PuttingBack.php',
        'if ($result->sha256 !== $due[$job->subject]) {',
        'if (false) {',
        'Deployment/RunTest.php',
        '--filter=test_a_server_that_alters_bytes',
    ),
    'a path is in another by its segments' => $core(
        'Path/RemotePath.php',
        'return Segments::startWith($other->segments, $this->segments);',
        'return str_starts_with($other->toString(), $this->toString());',
        'Path/RemotePathTest.php',
    ),
    'a name in an archive cannot leave' => $core(
        'Path/Segments.php',
        "if (\$segment === '..') {",
        'if (false) {',
        'Path/RemotePathTest.php',
    ),
    'what must not be public does not go up by hand' => $core(
        'Package/InspectedFiles.php',
        '$finding->stops() && ! in_array($finding->path, $overruled, true);',
        'false;',
        'Package/InspectedFilesTest.php',
    ),
    'a start page that would win is asked about' => $core(
        'Plan/StartPageContest.php',
        '$rank < $first ? Conflict::StartPageWins : Conflict::StartPageBeside',
        'Conflict::StartPageBeside',
        'Plan/ConflictTest.php',
        '--filter=test_a_start_page',
    ),
    'a directory shows the start page that was sent' => $core(
        'Deployment/LiveProof.php',
        '$shown === null || $expected[$at] ??= $shown;',
        '',
        'Deployment/LiveFindingsTest.php',
    ),
    'a program is not shown as a text' => $core(
        'Deployment/LiveProof.php',
        '$instead !== null => false,',
        '',
        'Deployment/LiveFindingsTest.php',
    ),
    'a kind of content that does not fit is no proof' => $core(
        'Deployment/PageProof.php',
        '$this->status === 200 && $this->matches !== false && $this->fits;',
        '$this->status === 200 && $this->matches !== false;',
        'Deployment/LiveFindingsTest.php',
    ),
    'what pages ask for in vain is found' => $core(
        'Deployment/LiveQuestions.php',
        'if ($answer->status >= 200 && $answer->status < 400) {',
        'if (true) {',
        'Deployment/LiveFindingsTest.php',
    ),
    'what should not be public is asked for' => $core(
        'Deployment/LiveQuestions.php',
        '$answer->status === 200 && $answer->sha256 === $sent[$url]->sha256,',
        'false,',
        'Deployment/LiveFindingsTest.php',
    ),
    'a pattern of a type means the same in a plan' => $core(
        'Path/PathPattern.php',
        "\$literal = (string) preg_replace('/[*?\\[]/', '[\$0]', \$directory);",
        '$literal = $directory;',
        'Path/PathPatternTest.php',
    ),
    'a host key that has changed gets no password' => [
        'file' => 'core/Connection/SshSession.php',
        'line' => 'if (! $endpoint->pin->fits($seen)) {',
        'instead' => 'if (false) {',
        'tests' => ['tests/Hosting/SshTest.php', '--filter=test_an_unseen_or_changed_host_key'],
    ],
    'what a listing leaves out is looked for another way' => [
        'file' => 'core/Connection/PooledRemoteDirectory.php',
        'line' => '$inner instanceof LooksAgain',
        'instead' => 'false && $inner instanceof LooksAgain',
        'tests' => ['tests/Hosting/PooledTest.php', '--filter=test_names_that_a_listing_leaves_out'],
    ],
    'what one host hangs on leaves workers to others' => $core(
        'Work/FairShare.php',
        '$free > ($atHost[$work->claim->host ?? \'\'] ?? 0) * $this->quarter()',
        'true',
        'Work/FairShareTest.php',
    ),
    'a rehearsed backup shows the bytes it holds' => $core(
        'Backup/RehearsalStage.php',
        '$answer->sha256 !== $page->sha256 => throw',
        'false => throw',
        'Backup/RehearsalTest.php',
    ),
    'one directory of two logins takes turns' => $app(
        'Storage/SiteLockNames.php',
        '[$site->domain, ...self::meeting($site->account, $site->applicationRoot())]',
        '[$site->domain]',
        'SamePlaceTest',
        'test_its_work_takes_turns',
    ),
    'one directory of two logins drifts once' => $app(
        'Storage/RunFiles.php',
        '[$site, $root] = SamePlace::ofSite($site, $root)->first($site);',
        '',
        'SamePlaceTest',
        'test_what_was_done_through_one',
    ),
    'a directory is shared only where the very token was read' => $core(
        'DocumentRoot/SharedRootProof.php',
        'return stream_get_contents($stream) === $text;',
        'return true;',
        'DocumentRoot/SharedRootProofTest.php',
    ),
    'a file is said to be there with the same bytes only where they were seen' => $core(
        'Deployment/RunProof.php',
        '|| $proof->matches !== true || ! $proof->holds()',
        '',
        'Deployment/RunTest.php',
        '--filter=test_a_live_page_with_other_bytes',
    ),
    'a token that was taken away meanwhile says nothing' => $core(
        'DocumentRoot/SharedRootProof.php',
        'return self::isStillThere($remote, $token, $text)',
        'return true',
        'DocumentRoot/SharedRootProofTest.php',
    ),
];
