<?php

declare(strict_types=1);

namespace App\Reach;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\DirectoryTree;

/** Looks at single directories of an account and keeps what was seen with what is known of its tree. */
final readonly class DirectoryLook
{
    public function __construct(private Connections $connections)
    {
    }

    /** @throws RemoteFailure nothing is known then that was not known before */
    public function look(Account $account, RemotePath $at): DirectoryTree
    {
        $entries = $this->connections->remote($account)->list($at);
        // Read again: somebody else may have looked elsewhere meanwhile.
        $tree = Account::findOrFail($account->id)->seen()->with($at, $entries);
        $account->update(['tree' => $tree->toArray()]);

        return $tree;
    }

    /**
     * A directory that was not there may have been made since; where the server cannot be asked, what was seen last
     * stays.
     */
    public function lookAgain(Account $account, ?RemotePath $directory): void
    {
        if ($directory !== null && $account->seen()->lacks($directory)) {
            rescue(
                fn () => $this->makeSure($account, $directory),
                null,
                static fn (\Throwable $failure): bool => ! Problem::isExpected($failure),
            );
        }
    }

    /**
     * Looks again where the tree has no such directory, or does not know: it may have been made since.
     *
     * @throws RemoteFailure
     */
    private function makeSure(Account $account, RemotePath $directory): void
    {
        for ($tree = $account->seen(); ! $tree->knows($directory);) {
            $above = $directory->parent();
            while ($above->depth() > 0 && ! $tree->knows($above)) {
                $above = $above->parent();
            }
            $tree = $this->look($account, $above);
            if ($tree->lacks($directory)) {
                return;
            }
        }
    }
}
