<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\Sheet;
use App\Models\Site;
use App\Sheets\SheetPage;
use App\Sheets\Sheets;
use App\Text\When;
use Carbon\CarbonImmutable;
use Cellarium\Core\Sheet\SignedSheet;

final class SheetCommand extends CellariumCommand
{
    protected $signature = 'cellarium:sheet '
        .'{of? : the number of a deployment, a domain, or the name of a client} '
        .'{--from= : first day, as 2026-10-01; the first of last month when left out} '
        .'{--until= : last day; the last of last month when left out} '
        .'{--link= : also a link that opens it without signing in, for so many days: 1, 7, 30 or 90} '
        .'{--out= : a file that the signed sheet is written to} '
        .'{--verify= : checks a signed sheet instead} '
        .'{--key= : the public key it has to be signed with, base64; that of this Cellarium when left out} '
        .'{--public-key : only writes the public key that sheets are signed with} {--json}';

    protected $description = 'Makes a sheet for a client, signed, or checks one';

    public function handle(Sheets $sheets): int
    {
        if ($this->option('public-key') === true) {
            $this->wantsJson()
                ? $this->json(['ok' => true, 'key' => $sheets->publicKey()])
                : $this->line($sheets->publicKey());

            return self::PROVEN;
        }

        return $this->option('verify') === null
            ? $this->make($sheets)
            : $this->verify((string) $this->option('verify'), $sheets);
    }

    private function make(Sheets $sheets): int
    {
        $sheet = $this->sheet($sheets, trim((string) $this->argument('of')));
        $signed = $sheet->signed();
        $days = $this->option('link');
        $link = $days === null ? null : url('/client-sheet').'#'.$sheets->link($sheet, (int) $days)->reveal();
        $out = $this->option('out');
        if ($out !== null && @file_put_contents((string) $out, $signed->toJson()) === false) {
            throw new Problem("The sheet is made, and $out cannot be written. Choose another place with --out.");
        }
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'id' => $sheet->id,
                'page' => url("/sheets/$sheet->id"),
                'link' => $link,
            ] + json_decode($signed->toJson(), true, 64, JSON_THROW_ON_ERROR));

            return self::PROVEN;
        }
        $page = new SheetPage($signed);
        $this->components->info("Sheet $sheet->id of {$sheet->about()}, for {$signed->sheet->client}, is signed.");
        foreach ($page->main() as $fact) {
            $this->components->twoColumnDetail($fact['name'], "{$fact['value']}, {$fact['note']}");
        }
        $this->components->twoColumnDetail('Page', url("/sheets/$sheet->id"));
        $link === null || $this->components->twoColumnDetail('Link, shown this once', $link);

        return self::PROVEN;
    }

    private function sheet(Sheets $sheets, string $of): Sheet
    {
        $of !== '' || throw new Problem('Name a deployment by its number, a domain, or a client.');
        if (ctype_digit($of)) {
            return $sheets->ofDeployment(
                Deployment::with('site.account.client', 'person', 'backup')->find((int) $of)
                    ?? throw new Problem("There is no deployment $of."),
                When::zone(),
            );
        }
        $site = Site::with('account.client', 'client')->where('domain', $of)->first();
        $client = $site?->owner() ?? Client::where('name', $of)->first()
            ?? throw new Problem(
                "There is neither a site nor a client $of. Run cellarium:accounts to see which there are.",
            );
        $month = CarbonImmutable::now(When::zone())->startOfMonth()->subMonth();

        return $sheets->of(
            $client,
            $site,
            $this->day('from', $month)->startOfDay(),
            $this->day('until', $month->endOfMonth())->endOfDay(),
            When::zone(),
        );
    }

    private function day(string $option, CarbonImmutable $usual): CarbonImmutable
    {
        $given = $this->option($option);
        if ($given === null) {
            return $usual;
        }
        CarbonImmutable::canBeCreatedFromFormat((string) $given, 'Y-m-d') || throw new Problem(
            "$given is no day. Write --$option as 2026-10-01.",
        );

        return CarbonImmutable::parse((string) $given, When::zone());
    }

    private function verify(string $file, Sheets $sheets): int
    {
        $signed = SignedSheet::fromJson((string) file_get_contents($this->readable($file)));
        $signed->verify((string) ($this->option('key') ?? $sheets->publicKey()));
        $sheet = $signed->sheet;
        $page = new SheetPage($signed);
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'client' => $sheet->client,
                'agency' => $sheet->agency,
                'made_at' => gmdate(DATE_ATOM, $sheet->madeAt),
                'key' => $signed->key,
            ]);
        } else {
            $this->components->info(
                "This sheet of $sheet->agency for $sheet->client, made {$page->when($sheet->madeAt)}, is as it was "
                    .'signed.',
            );
        }

        return self::PROVEN;
    }
}
