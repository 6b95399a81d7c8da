<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Storage\Schema;
use Illuminate\Console\Command;

/** Not one that acts as a person: there may be no table of people yet. */
final class SchemaCommand extends Command
{
    protected $signature = 'cellarium:schema {--starting : only new, current or behind}';

    protected $description = 'Say which schema the database has, and whether this version can bring it up';

    public function handle(): int
    {
        try {
            $state = Schema::state();
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            $this->output->writeln(Problem::words($failure));

            return self::FAILURE;
        }
        $this->option('starting') === true ? $this->output->writeln($state) : $this->components->info(match ($state) {
            'new' => 'The database is empty.',
            'current' => 'The database has the schema of this version.',
            'behind' => 'The database has an earlier schema; ./start brings it up.',
        });

        return self::SUCCESS;
    }
}
