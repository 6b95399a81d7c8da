<?php

declare(strict_types=1);

namespace App\Files;

use App\Hosting\Connections;
use App\Models\Account;
use Cellarium\Core\Transfer\TransferPool;
use Cellarium\Core\Transfer\TransferPools;
use Illuminate\Filesystem\Filesystem;

/** Several connections to an account for a while, with a directory of ours to read files into. */
final readonly class FileWorkers
{
    public function __construct(
        private Connections $connections,
        private Filesystem $files,
        private TransferPools $pools,
    ) {
    }

    /**
     * @template T
     *
     * @param  \Closure(): mixed  $beat  called often, also while no server answers; may throw Cancelled
     * @param  \Closure(TransferPool, string): T  $work  is given the connections and the directory, which is empty
     * @return T
     */
    public function with(Account $account, \Closure $beat, \Closure $work): mixed
    {
        $scratch = sys_get_temp_dir().'/cellarium-files-'.bin2hex(random_bytes(8));
        $this->files->makeDirectory($scratch, 0700);
        $pool = $this->pools->open(
            $this->connections->endpoint($account),
            (int) config('cellarium.connections'),
            new WorkBeat($beat),
        );
        try {
            return $work($pool, $scratch);
        } finally {
            $pool->close();
            $this->files->deleteDirectory($scratch);
        }
    }
}
