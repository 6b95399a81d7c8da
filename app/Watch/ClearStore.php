<?php

declare(strict_types=1);

namespace App\Watch;

use App\Failure\Problem;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** A person has looked at how much would be removed from the store, and said that it may. */
final class ClearStore implements ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    /** @param  bool  $empties  what lies aside, instead of moving more there */
    public function __construct(public readonly int $person, public readonly bool $empties)
    {
        $this->onQueue('sweep');
    }

    public function handle(Cleaner $cleaner): void
    {
        $person = Person::findOrFail($this->person);
        try {
            $said = $this->empties ? $cleaner->emptyAside() : $cleaner->clean(however: true);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            Record::write(RecordKind::Cleaned, 'Not cleared: '.Problem::words($failure), person: $person);

            return;
        }
        Record::write(RecordKind::Cleaned, "$person->name had the store cleared: {$said->words()}", person: $person);
    }
}
