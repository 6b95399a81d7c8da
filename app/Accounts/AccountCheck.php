<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Account\ControlFailure;
use Cellarium\Core\Connection\EntryKind;
use Cellarium\Core\Connection\Ladder;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Proof\DocumentRootProof;
use Cellarium\Core\Proof\PlaceholderPage;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Reach\DirectoryTree;
use Illuminate\Support\Str;

/** Looks at an account: does it connect, what directories are there, how much space is used, what stands in its sites. */
final readonly class AccountCheck
{
    public function __construct(private Connections $connections)
    {
    }

    /** @return bool whether every rung held */
    public function connect(Account $account): bool
    {
        $remote = $this->connections->remote($account);
        $steps = (new Ladder($this->connections->names()))->climb($this->connections->endpoint($account), $remote, $account->documentRoots());
        $holds = end($steps) !== false && end($steps)->ok;
        $account->update(['ladder' => array_map(static fn (ProofStep $step): array => $step->toArray(), $steps), 'tried_at' => now()]);
        if ($holds) {
            $account->update(['reached_at' => now()]);
            $this->look($account, $remote);
        }
        Record::write('connected', $holds ? "Connected to $account->host as $account->login" : "Could not connect to $account->host: ".(end($steps)->sentence ?? ''), $account);

        return $holds;
    }

    /** Takes in directories, space and placeholders. */
    public function look(Account $account, ?RemoteDirectory $remote = null): void
    {
        $remote ??= $this->connections->remote($account);
        $account->update(['tree' => DirectoryTree::look($remote)->directories, 'looked_at' => now()]);
        $this->space($account);
        foreach ($account->sites as $site) {
            $this->lookForPlaceholder($site, $remote);
        }
    }

    public function space(Account $account): void
    {
        try {
            $space = $this->connections->control($account)?->space();
            $account->update(['space_used' => $space?->used, 'space_limit' => $space?->limit]);
        } catch (ControlFailure $failure) {
            // Unknown is shown as unknown; the last figure would look like a fresh one.
            $account->update(['space_used' => null, 'space_limit' => null]);
            logger()->warning($failure->getMessage());
        }
    }

    public function proveRoot(Site $site): ProofStep
    {
        $remote = $this->connections->remote($site->account);
        $step = DocumentRootProof::prove($remote, $this->connections->web(), $site->addresses(), $site->root(), strtolower(Str::random(20)));
        $site->proofs()->create(['kind' => 'document_root', 'made_at' => now()] + $step->toArray());
        $site->update(['root_proven_at' => $step->ok ? now() : null]);
        Record::write('document_root', $step->sentence, $site);

        return $step;
    }

    private function lookForPlaceholder(Site $site, RemoteDirectory $remote): void
    {
        $names = [];
        foreach ($remote->list($site->root()) as $entry) {
            $names[$entry->name] = $entry;
        }
        $found = null;
        foreach ($site->start_pages as $name) {
            if (isset($names[$name])) {
                $found = $this->isPlaceholder($site, $remote, $names[$name]) ? $name : null;
                break;
            }
        }
        $site->update(['placeholder' => $found !== null, 'placeholder_file' => $found]);
    }

    private function isPlaceholder(Site $site, RemoteDirectory $remote, RemoteEntry $entry): bool
    {
        if ($entry->kind !== EntryKind::File || ($entry->size ?? 0) > 32768) {
            return false;
        }
        $sink = fopen('php://temp', 'w+b');
        assert($sink !== false);
        $remote->read($site->root()->child($entry->name), $sink);
        rewind($sink);

        return (new PlaceholderPage)->recognises((string) stream_get_contents($sink), (int) $entry->size);
    }
}
