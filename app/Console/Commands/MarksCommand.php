<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Witnesses;
use App\Failure\Problem;
use App\Storage\Installation;
use App\Storage\Stores;
use Cellarium\Core\Storage\DiskObjects;
use Illuminate\Console\Command;

/**
 * Not one that acts as a person: it has to answer before there is a database.
 */
final class MarksCommand extends Command
{
    protected $signature = 'cellarium:marks '
        .'{--starting : check, and say nothing where all is well} '
        .'{--lay : give a new installation its marks} '
        .'{--adopt : give them to one that is older than marks, where database and lists agree} '
        .'{--return : after all of it came back from a backup of Cellarium itself} '
        .'{--accept= : a directory, or s3, is meant to begin empty: give it the mark}';

    protected $description = 'Say whether directories and store are this installation’s own, or give them its mark';

    public function handle(): int
    {
        try {
            $said = $this->carryOut();
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            $this->components->error(Problem::words($failure));

            return self::FAILURE;
        }
        $this->option('starting') === true || $this->components->info($said);

        return self::SUCCESS;
    }

    private function carryOut(): string
    {
        $mark = Installation::mark() ?? throw new Problem('CELLARIUM_IDENTITY in .env is empty. ./start fills it in.');
        $accept = $this->option('accept');
        if (is_string($accept)) {
            $directory = str_starts_with($accept, '/') ? $accept : base_path($accept);
            in_array($directory, Installation::directories(), true) || $accept === 's3' || throw new Problem(
                'That is none of the directories that bear a mark: '.implode(', ', Installation::directories()).', or '
                    .'s3.',
            );
            $accept === 's3' ? Stores::unchecked()->objects()->take($mark) : DiskObjects::make($directory);
            $accept === 's3' || $mark->putInto($directory);

            return "The mark was given to $accept.";
        }
        if ($this->option('adopt') === true) {
            $witnesses = Witnesses::look();
            $witnesses->agree() || throw new Problem($witnesses->words());
        }
        if ($this->option('return') === true) {
            Installation::return($mark, Stores::unchecked()->objects());

            return 'The marks are laid.';
        }
        if ($this->option('adopt') === true || $this->option('lay') === true) {
            Installation::lay($mark, Stores::unchecked()->objects());

            return 'The marks are laid.';
        }
        Installation::check();

        return 'All directories are this installation’s own.';
    }
}
