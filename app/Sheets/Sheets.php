<?php

declare(strict_types=1);

namespace App\Sheets;

use App\Failure\Problem;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Sheet;
use App\Models\SheetLink;
use App\Models\Site;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Sheet\ClientSheet;
use Cellarium\Core\Sheet\SheetCover;
use Cellarium\Core\Sheet\SheetKey;
use Cellarium\Core\Sheet\SignedSheet;
use Cellarium\Core\Words\Count;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;

/** Makes sheets for clients, and the links that open them without signing in. */
final readonly class Sheets
{
    /** Days for which a link may open one. */
    public const DAYS = [1, 7, 30, 90];

    public static function agency(): string
    {
        $name = trim((string) config('cellarium.agency.name'));

        return $name === '' ? 'The agency' : $name;
    }

    /** The key that they are signed with; it belongs into every backup of Cellarium itself. */
    public static function keyFile(): string
    {
        return config('cellarium.var').'/keys/sheets.json';
    }

    public static function colour(): string
    {
        $colour = (string) config('cellarium.agency.colour');

        return preg_match('/\A#[0-9a-f]{6}\z/', $colour) === 1 ? $colour : throw new Problem(
            "CELLARIUM_AGENCY_COLOUR is $colour, which is no colour. Write it as # and six hexadecimal digits.",
        );
    }

    /** @return Builder<Site> */
    public static function sitesOf(Client $client): Builder
    {
        return Site::where(static fn ($query) => $query
            ->where('client_id', $client->id)
            ->orWhere(static fn ($own) => $own
                ->whereNull('client_id')
                ->whereHas('account', static fn ($account) => $account->where('client_id', $client->id))));
    }

    /** The public half of the key that they are signed with, base64. */
    public function publicKey(): string
    {
        return $this->key()->public();
    }

    /** @throws Problem when it has not ended yet */
    public function ofDeployment(Deployment $deployment, string $zone): Sheet
    {
        return $this->keep(
            SheetFacts::ofDeployment($deployment, $zone),
            $deployment->site->owner(),
            $deployment->site,
            $deployment,
        );
    }

    /**
     * @param  Site|null  $only  null for all sites of the client
     *
     * @throws Problem when there is nothing to tell of, or too much
     */
    public function of(
        Client $client,
        ?Site $only,
        CarbonImmutable $from,
        CarbonImmutable $until,
        string $zone,
    ): Sheet {
        $until > $from || throw new Problem('The time ends before it begins. Turn the two days around.');
        $from->isFuture() && throw new Problem('That time has not come yet.');
        $sites = self::sitesOf($client)
            ->when($only !== null, static fn ($query) => $query->whereKey($only?->id))
            ->with('account.client', 'client', 'stays.account')
            ->orderBy('domain')
            ->get();
        $sites->isEmpty() && throw new Problem("$client->name has no site to tell of.");
        $cover = new SheetCover($from->getTimestamp(), min($until->getTimestamp(), now()->getTimestamp() + 1), $zone);

        return $this->keep(SheetFacts::forClient($client, $sites, $cover), $client, $only, null);
    }

    /**
     * @param  int  $days  one of DAYS
     * @return Secret the token of the link; it is known to nobody afterwards
     */
    public function link(Sheet $sheet, int $days): Secret
    {
        in_array($days, self::DAYS, true) || throw new Problem('Choose for how many days the link is to work.');
        // 256 random bits; only their hash is stored.
        $token = sodium_bin2base64(random_bytes(32), SODIUM_BASE64_VARIANT_URLSAFE_NO_PADDING);
        SheetLink::create([
            'sheet_id' => $sheet->id,
            'person_id' => Person::viewer()?->id,
            'finder' => self::finder($token),
            'expires_at' => now()->addDays($days),
        ]);
        Record::write(
            RecordKind::SheetLinked,
            "Link to the sheet of {$sheet->about()} made, works for ".Count::choose($days, 'a day', "$days days"),
            $sheet->site ?? $sheet->client,
            ['sheet' => $sheet->id],
        );

        return new Secret($token);
    }

    /** Null when there is no such link, it was withdrawn, or its time is over: whoever asks is told no more. */
    public function open(#[\SensitiveParameter] string $token, Request $request): ?SheetLink
    {
        $link = SheetLink::where('finder', self::finder($token))->first();
        if ($link?->works() !== true) {
            return null;
        }
        $link->increment('opened', 1, ['opened_at' => now(), 'opened_from' => $request->ip()]);
        $sheet = $this->behind($link);
        Record::write(
            RecordKind::SheetOpened,
            "Sheet of {$sheet->about()} opened by its link, from {$request->ip()}",
            $sheet->site ?? $sheet->client,
            ['sheet' => $sheet->id],
        );

        return $link;
    }

    /** What a link opens, whoever is signed in beside it. */
    public function behind(SheetLink $link): Sheet
    {
        return Sheet::withoutGlobalScope('of-the-client')
            ->with(['client', 'site' => static fn ($query) => $query->withoutGlobalScope('of-the-client')])
            ->findOrFail($link->sheet_id);
    }

    public function withdraw(SheetLink $link): void
    {
        $sheet = $link->sheet;
        if (SheetLink::whereKey($link->id)->whereNull('withdrawn_at')->update(['withdrawn_at' => now()]) === 1) {
            Record::write(
                RecordKind::SheetWithdrawn,
                "Link to the sheet of {$sheet->about()} withdrawn",
                $sheet->site ?? $sheet->client,
                ['sheet' => $sheet->id],
            );
        }
    }

    private function keep(ClientSheet $facts, Client $client, ?Site $site, ?Deployment $deployment): Sheet
    {
        $sheet = Sheet::create([
            'client_id' => $client->id,
            'site_id' => $site?->id,
            'deployment_id' => $deployment?->id,
            'person_id' => Person::viewer()?->id,
            'covers_from' => CarbonImmutable::createFromTimestamp($facts->cover->from, config('app.timezone')),
            'covers_until' => CarbonImmutable::createFromTimestamp($facts->cover->until, config('app.timezone')),
            'signed' => SignedSheet::sign($facts, $this->key())->toJson(),
        ]);
        Record::write(
            RecordKind::SheetMade,
            "Sheet of {$sheet->about()} made for $client->name, signed",
            $site ?? $client,
            ['sheet' => $sheet->id],
        );

        return $sheet;
    }

    /** Made with the first sheet; of two who come at once, one makes it and both read it. */
    private function key(): SheetKey
    {
        $file = self::keyFile();
        if (! is_file($file)) {
            Sheet::withoutGlobalScope('of-the-client')->exists() && throw new Problem(
                "The key that sheets are signed with is not at $file. Bring it back from a backup of Cellarium itself; "
                    .'a new one would make the sheets that clients hold look as if somebody else had signed them.',
            );
            $own = "$file.".bin2hex(random_bytes(6));
            SheetKey::generate()->write($own);
            @link($own, $file);
            @unlink($own);
        }
        try {
            return SheetKey::read($file);
        } catch (\UnexpectedValueException) {
            throw new Problem(
                "$file holds no key to sign sheets with. Bring it back from a backup of Cellarium itself.",
            );
        }
    }

    private static function finder(#[\SensitiveParameter] string $token): string
    {
        return hash('sha256', "sheet $token");
    }
}
