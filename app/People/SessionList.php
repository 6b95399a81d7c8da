<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/** The sessions of a person. A session is named by a hash of its identifier, which opens nothing. */
final readonly class SessionList
{
    /** @param  list<OpenSession>  $sessions  the one that asks first */
    private function __construct(public array $sessions, private Person $person)
    {
    }

    public static function forPerson(Person $person, string $own): self
    {
        $rows = DB::table('sessions')
            ->where('user_id', $person->id)
            ->where('last_activity', '>', now()->subMinutes((int) config('session.lifetime'))->getTimestamp())
            ->orderByDesc('last_activity')
            ->get(['id', 'ip_address', 'user_agent', 'last_activity']);
        $sessions = $rows->map(
            static fn (\stdClass $row): OpenSession => new OpenSession(
                self::name($row->id),
                (string) $row->ip_address,
                (string) $row->user_agent,
                CarbonImmutable::createFromTimestamp($row->last_activity),
                $row->id === $own,
            ),
        );

        return new self($sessions->sortByDesc('isThis')->values()->all(), $person);
    }

    /** @param  string  $which  its name, or "others" @return int how many ended */
    public function end(string $which): int
    {
        $ids = DB::table('sessions')->where('user_id', $this->person->id)->pluck('id');
        $own = collect($this->sessions)->firstWhere('isThis', true)?->name;
        $ending = $ids->filter(static fn (string $id): bool => match ($which) {
            'others' => self::name($id) !== $own,
            default => self::name($id) === $which && $which !== $own,
        });

        return DB::table('sessions')->whereIn('id', $ending->values())->delete();
    }

    private static function name(string $id): string
    {
        return substr(hash('sha256', $id), 0, 20);
    }
}
