<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\SamePlace;
use App\Models\Site;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\KeptPlan;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\InspectedFiles;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanReader;
use Cellarium\Core\Plan\Why;
use Cellarium\Core\Storage\WholeFile;

/** Files of runs that are too large for the database: targets, plans, journals, and the last look at each site. */
final readonly class RunFiles
{
    /** How JsonLines writes a path. */
    private const AS_IN_MANIFESTS = JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR;

    private string $var;

    public function __construct()
    {
        $this->var = (string) config('cellarium.var');
    }

    public function journal(Deployment $deployment): FileJournal
    {
        return new FileJournal("$this->var/runs/$deployment->id");
    }

    public function keepDraft(Deployment $deployment, Plan $plan): void
    {
        $journal = $this->journal($deployment);
        (new KeptPlan($journal, 'draft'))->keep($plan);
        $paths = [];
        foreach ($plan->items as $item) {
            $item->target?->isFile() === true && $item->why !== Why::TheirsBeside && $paths[] = (string) $item->path;
        }
        $journal->keep('brings', implode("\n", $paths));
    }

    /**
     * What a person brought; it stays while plans are made anew.
     *
     * @param  Manifest|null  $base  what of it was downloaded before, where it was
     */
    public function keepBrought(Deployment $deployment, Manifest $brought, ?Manifest $base): void
    {
        $journal = $this->journal($deployment);
        $journal->keep('draft-brought', $brought->lines());
        $base === null || $journal->keep('draft-base', $base->lines());
    }

    /** @return array{Manifest, Manifest|null} */
    public function brought(Deployment $deployment): array
    {
        $journal = $this->journal($deployment);
        $base = $journal->kept('draft-base');

        return [
            Manifest::fromText($journal->kept('draft-brought') ?? throw self::unreadable($deployment)),
            $base === null ? null : Manifest::fromText($base),
        ];
    }

    public function keepInspection(Deployment $deployment, InspectedFiles $inspected): void
    {
        $this->journal($deployment)->keep('draft-inspection', $inspected->toText());
    }

    /** @return array{list<PackageFinding>, list<PackageFinding>}|null see InspectedFiles::told(); null of no upload */
    public function inspection(Deployment $deployment): ?array
    {
        $text = $this->journal($deployment)->kept('draft-inspection');

        return $text === null ? null : InspectedFiles::told($text);
    }

    /** A folder of which a person is to say whether it is meant, or what lies in it; null where that is no question. */
    public function keepFolder(Deployment $deployment, ?string $path): void
    {
        $this->journal($deployment)->keep('draft-folder', (string) $path);
    }

    public function folder(Deployment $deployment): ?string
    {
        $path = (string) $this->journal($deployment)->kept('draft-folder');

        return $path === '' ? null : $path;
    }

    /** It was asked of, and is meant. */
    public function keepFolderMeant(Deployment $deployment): void
    {
        $this->journal($deployment)->keep('draft-folder-meant', '1');
    }

    public function isFolderMeant(Deployment $deployment): bool
    {
        return $this->journal($deployment)->kept('draft-folder-meant') !== null;
    }

    /** @param  list<string>  $paths  of files and folders that go although they would not */
    public function keepOverruled(Deployment $deployment, array $paths): void
    {
        $this->journal($deployment)->keep('draft-overruled', json_encode($paths, JSON_THROW_ON_ERROR));
    }

    /** @return list<string> */
    public function overruled(Deployment $deployment): array
    {
        $text = $this->journal($deployment)->kept('draft-overruled');

        return $text === null ? [] : json_decode($text, true, flags: JSON_THROW_ON_ERROR);
    }

    /** @param  array<string, mixed>  $originals  what is set aside elsewhere once the deployment is proven */
    public function keepOriginals(Deployment $deployment, array $originals): void
    {
        $this->journal($deployment)->keep('draft-originals', json_encode($originals, JSON_THROW_ON_ERROR));
    }

    /** @return array<string, mixed>|null null where nothing was moved here */
    public function originals(Deployment $deployment): ?array
    {
        $text = $this->journal($deployment)->kept('draft-originals');

        return $text === null ? null : json_decode($text, true, flags: JSON_THROW_ON_ERROR);
    }

    /** What both sides were before: as it was downloaded, or as the deployment before this one left it. */
    public function thirdSide(Deployment $deployment): ?Manifest
    {
        $base = match ($deployment->kind) {
            DeploymentKind::Files => $this->brought($deployment)[1],
            // Of the one that is taken back, which need not be the last.
            DeploymentKind::Undo => $deployment->undoes === null ? null : $this->after($deployment->undoes),
            default => null,
        };

        return $base ?? ($deployment->comparedWith === null ? null : $this->left($deployment->comparedWith));
    }

    /** What is to be there, as the plan was made for it. */
    public function target(Deployment $deployment): Manifest
    {
        return $this->draft($deployment)?->target() ?? throw self::unreadable($deployment);
    }

    /** The plan as it was shown first; null where it was not made yet. */
    public function draft(Deployment $deployment): ?Plan
    {
        return (new KeptPlan($this->journal($deployment), 'draft'))->plan();
    }

    /** The text that draft() reads, whatever it is; "" where there is none. */
    public function draftAsStored(Deployment $deployment): string
    {
        return $this->journal($deployment)->kept('draft') ?? '';
    }

    /** @return list<string> paths of the files that it was to put there */
    public function brings(Deployment $deployment): array
    {
        $paths = $this->journal($deployment)->kept('brings') ?? throw self::unreadable($deployment);

        return $paths === '' ? [] : explode("\n", $paths);
    }

    /**
     * @param  string  $directory  path from where the run begins; "" for that itself
     * @return list<string> names right in it that the deployment brought, or that lead to what it brought
     */
    public function broughtInto(Deployment $deployment, string $directory): array
    {
        $paths = $this->journal($deployment)->kept('brings') ?? '';
        $prefix = $directory === '' ? '' : preg_quote("$directory/", '#');
        preg_match_all("#^$prefix([^/\n]+)#m", $paths, $match);

        return array_values(array_unique($match[1]));
    }

    /**
     * @param  string  $directory  path from where the run begins; "" for that itself
     * @return array<string, ManifestEntry> what the deployment left right in it, by name
     */
    public function leftIn(Deployment $deployment, string $directory): array
    {
        $text = $this->journal($deployment)->kept('after') ?? '';
        $prefix = $directory === ''
            ? ''
            : preg_quote(substr(json_encode("$directory/", self::AS_IN_MANIFESTS), 1, -1), '#');
        preg_match_all("#^\{\"path\":\"$prefix(?:[^/\"\\\\]|\\\\.)+\",.*$#m", $text, $match);
        $entries = [];
        foreach ($match[0] as $line) {
            $entry = ManifestEntry::fromFields(JsonFields::fromJson($line));
            $entries[$entry->path->name()] = $entry;
        }

        return $entries;
    }

    /** @param  string  $path  from where the run begins; null where the deployment left nothing there */
    public function leftOf(Deployment $deployment, string $path): ?ManifestEntry
    {
        $text = $this->journal($deployment)->kept('after');

        return $text === null ? null : Manifest::entryOf($text, $path);
    }

    /** Nothing was touched, and its plan is made anew: what was noted of its first try no longer counts. */
    public function beginAnew(Deployment $deployment): void
    {
        foreach (glob("$this->var/runs/$deployment->id/*") ?: [] as $file) {
            preg_match('/\A(?:draft|format\z)/', basename($file)) === 1 || unlink($file);
        }
    }

    /** The plan as carried out, or as shown before. */
    public function plan(Deployment $deployment): Plan
    {
        $journal = $this->journal($deployment);

        return (new KeptPlan($journal, 'plan'))->plan()
            ?? (new KeptPlan($journal, 'draft'))->plan()
            ?? throw self::unreadable($deployment);
    }

    /** The same, for looking at parts of it. */
    public function planReader(Deployment $deployment): PlanReader
    {
        $journal = $this->journal($deployment);

        return (new KeptPlan($journal, 'plan'))->reader()
            ?? (new KeptPlan($journal, 'draft'))->reader()
            ?? throw self::unreadable($deployment);
    }

    private static function unreadable(Deployment $deployment): \RuntimeException
    {
        return new \RuntimeException(
            "The plan of deployment $deployment->id cannot be read any more. Make a new plan.",
        );
    }

    /**
     * @param  Manifest  $after  what the server holds now
     * @param  Manifest  $left  what the next plan is compared with, see Plan::leaves()
     */
    public function keepAfter(Deployment $deployment, Manifest $after, Manifest $left): void
    {
        $this->journal($deployment)->keep('after', $after->lines());
        $left === $after || $this->journal($deployment)->keep('left', $left->lines());
    }

    public function hasLeft(Deployment $deployment): bool
    {
        return is_file("$this->var/runs/$deployment->id/after");
    }

    /** What the next plan is compared with; null where that is not known. */
    public function left(Deployment $deployment): ?Manifest
    {
        $text = $this->journal($deployment)->kept('left');

        return $text === null ? $this->after($deployment) : Manifest::fromText($text);
    }

    public function after(Deployment $deployment): ?Manifest
    {
        $text = $this->journal($deployment)->kept('after');

        return $text === null ? null : Manifest::fromText($text);
    }

    /**
     * The last look at a directory of a site.
     *
     * @param  RemotePath  $root  where its paths begin
     */
    public function known(Site $site, RemotePath $root): EarlierLook
    {
        $text = @file_get_contents($this->knownFile($site, $root));

        return $text === false ? EarlierLook::never() : EarlierLook::fromText($text);
    }

    public function keepKnown(Site $site, RemotePath $root, EarlierLook $look): void
    {
        WholeFile::write($this->knownFile($site, $root), $look->lines());
    }

    /** What was seen of it lies at another host from here on. */
    public function forgetKnown(Site $site): void
    {
        $own = "$this->var/manifests/site-$site->id";
        array_map(unlink(...), [...glob("$own.jsonl") ?: [], ...glob("$own-*.jsonl") ?: []]);
    }

    /** One for each directory, whichever sites begin there: what was seen in another says nothing. */
    private function knownFile(Site $site, RemotePath $root): string
    {
        [$site, $root] = SamePlace::ofSite($site, $root)->first($site);
        $where = $root->equals($site->root()) ? '' : '-'.substr(hash('sha256', $root->toString()), 0, 16);

        return "$this->var/manifests/site-$site->id$where.jsonl";
    }
}
