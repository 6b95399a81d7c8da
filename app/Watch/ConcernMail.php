<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\ClientRequest;
use App\Models\MailedConcern;
use App\Models\Person;
use App\Today\Concern;
use App\Today\Concerns;
use App\Today\Urgency;
use Cellarium\Core\Words\Count;
use Illuminate\Mail\Message;
use Illuminate\Support\Facades\Mail;
use Symfony\Component\Mailer\Exception\TransportExceptionInterface;

/**
 * Tells people by e-mail what needs a hand, as they chose: each concern once, as long as it stands. Mails hold no
 * secrets, only what Today shows.
 */
final readonly class ConcernMail
{
    /** A mail names so many; the others stand on Today. */
    private const MOST = 20;

    /**
     * Whoever cannot be reached now is told at the next time.
     *
     * @return array{sent: int, failed: int} mails
     */
    public function send(): array
    {
        [$sent, $failed, $all] = [0, 0, null];
        foreach (Person::open()->whereNotNull('password')->where('settings->mail', '!=', 'none')->get() as $person) {
            $lines = $person->role->isOfTheAgency()
                ? $this->concerns($person, ($all ??= Concerns::compute())->all)
                : $this->answers($person);
            $new = $this->untold($person, $lines);
            if ($new === []) {
                continue;
            }
            try {
                $this->mail($person, array_values($new));
                MailedConcern::insert(array_map(
                    static fn (string $key): array => ['person_id' => $person->id, 'concern' => $key],
                    array_keys($new),
                ));
                $sent++;
            } catch (TransportExceptionInterface $failure) {
                report($failure);
                $failed++;
            }
        }

        return ['sent' => $sent, 'failed' => $failed];
    }

    /**
     * @param  list<Concern>  $all
     * @return array<string, string> lines by key
     */
    private function concerns(Person $person, array $all): array
    {
        $lines = [];
        foreach ($all as $concern) {
            $wanted = match ($person->settings->mail) {
                'all' => true,
                'chosen' => in_array($concern->kind->value, $person->settings->kinds, true),
                default => $concern->urgency === Urgency::Now,
            };
            if ($wanted) {
                // Not by its evidence, which counts days.
                $key = hash('sha256', "{$concern->kind->value}\n$concern->about\n$concern->url");
                $lines[$key] = "{$concern->title}: $concern->about\n  ".rtrim($concern->evidence, '.').'.';
            }
        }

        return $lines;
    }

    /** @return array<string, string> */
    private function answers(Person $person): array
    {
        return ClientRequest::with('answeredBy')
            ->where('person_id', $person->id)
            ->where('answered_at', '>', now()->subDays(7))
            ->get()
            ->mapWithKeys(static fn (ClientRequest $asked): array => [
                hash('sha256', "answer\n$asked->id") => "You asked: $asked->words\n  {$asked->answeredBy?->name} "
                    ."answers: $asked->answer",
            ])
            ->all();
    }

    /**
     * What stands no longer is forgotten, so that it is told of again when it comes back.
     *
     * @param  array<string, string>  $lines
     * @return array<string, string>
     */
    private function untold(Person $person, array $lines): array
    {
        $told = MailedConcern::where('person_id', $person->id)->pluck('concern')->flip();
        $gone = $told->diffKeys($lines)->keys();
        $gone->chunk(500)->each(
            static fn ($some) => MailedConcern::where('person_id', $person->id)->whereIn('concern', $some)->delete(),
        );

        return array_diff_key($lines, $told->all());
    }

    /** @param  list<string>  $lines */
    private function mail(Person $person, array $lines): void
    {
        $many = count($lines);
        $agency = $person->role->isOfTheAgency();
        $subject = match (true) {
            ! $agency => Count::choose($many, 'The agency has answered', "The agency has answered $many times"),
            $many === 1 => strtok($lines[0], "\n") ?: 'Needs a hand',
            default => "$many things need a hand",
        };
        $text = implode("\n\n", array_slice($lines, 0, self::MOST))
            .($many > self::MOST ? "\n\nand ".($many - self::MOST).' more.' : '')
            ."\n\n".rtrim((string) config('app.url'), '/')."/\n\nWhich of these come by e-mail is yours to choose: "
            .rtrim((string) config('app.url'), '/')."/me\n";
        Mail::raw($text, static function (Message $message) use ($person, $subject): void {
            // A line end in a subject would be another header; what hosts say may hold anything.
            $message->to($person->email, $person->name)->subject(mb_substr(
                (string) preg_replace('/[\p{C}\s]+/u', ' ', $subject),
                0,
                150,
            ));
        });
    }
}
