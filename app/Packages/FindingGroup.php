<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\PackageFinding;
use Cellarium\Core\Package\Severity;

/** Findings of one kind, together: what it means, and each with its place. */
final readonly class FindingGroup
{
    /** So many are shown at once, the others on request. */
    private const FIRST = 5;

    /** Of one kind; what is more is counted. */
    private const MOST = 200;

    private const TITLES = [
        'no_start_page' => 'No start page at the top',
        'several_start_pages' => 'Several start pages',
        'wrapper_lifted' => 'A wrapping folder is lifted',
        'case_twins' => 'Names that differ in case only',
        'leftovers' => 'Leftovers that do not land',
        'secret_key' => 'A private key lies in it',
        'secret_setting' => 'A secret lies in it',
        'secret_dump' => 'A database lies in it',
        'archive_inside' => 'An archive lies in it',
        'name_unusual' => 'Names that not every system holds',
        'name_looks_like' => 'Names that look like others',
        'reference_case' => 'Works on the author’s computer, breaks live',
        'reference_missing' => 'Leads nowhere',
        'reference_listing' => 'Leads to a directory without a start page',
        'reference_above_root' => 'Leads above the top of the site',
        'reference_local_file' => 'Asks for a file of the author’s computer',
        'reference_private_host' => 'Asks a host that visitors do not reach',
        'reference_with_login' => 'Shows a login to everybody',
        'reference_plain_http' => 'Loads by http:',
        'reference_fragment' => 'Leads to a place that the page does not have',
        'references_more' => 'And more of these',
    ];

    /** @param  non-empty-list<PackageFinding>  $findings */
    private function __construct(public string $code, public array $findings)
    {
    }

    /**
     * @param  list<PackageFinding>  $findings  what stops first
     * @return list<self>
     */
    public static function all(array $findings): array
    {
        $groups = [];
        foreach ($findings as $finding) {
            // One code may be a warning here and a note there.
            $groups["$finding->code {$finding->severity->value}"][] = $finding;
        }

        return array_map(static fn (array $some): self => new self($some[0]->code, $some), array_values($groups));
    }

    public function title(): string
    {
        return self::TITLES[$this->code] ?? $this->code;
    }

    public function severity(): Severity
    {
        return $this->findings[0]->severity;
    }

    public function tone(): string
    {
        return match ($this->severity()) {
            Severity::Stop => 'now',
            Severity::Warn => 'soon',
            Severity::Note => 'kept',
        };
    }

    public function label(): string
    {
        return match ($this->severity()) {
            Severity::Stop => 'stop',
            Severity::Warn => 'look',
            Severity::Note => 'note',
        };
    }

    /** @return list<PackageFinding> */
    public function first(): array
    {
        return array_slice($this->findings, 0, self::FIRST);
    }

    /** @return list<PackageFinding> */
    public function others(): array
    {
        return array_slice($this->findings, self::FIRST, self::MOST - self::FIRST);
    }

    public function notShown(): int
    {
        return max(0, count($this->findings) - self::MOST);
    }

    /** In which file and line, before what is said; "" where it is about the whole. */
    public static function where(PackageFinding $finding): string
    {
        return match (true) {
            ! $finding->isAboutAFile() => '',
            $finding->line === null => "$finding->path ",
            default => "$finding->path line $finding->line ",
        };
    }
}
