<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Package\Mend\Mend;
use Cellarium\Core\Package\Mend\MendKind;

/** Findings of one kind, together: what it means, and each with its place. */
final readonly class FindingGroup
{
    /** So many are shown at once, the others on request. */
    private const FIRST = 5;

    /** Of one kind; what is more is counted. */
    private const MOST = 200;

    /** @param  non-empty-list<PackageFinding>  $findings */
    private function __construct(public FindingCode $code, public array $findings)
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
            $groups["{$finding->code->value} {$finding->severity->value}"][] = $finding;
        }

        return array_map(static fn (array $some): self => new self($some[0]->code, $some), array_values($groups));
    }

    public function title(): string
    {
        return match ($this->code) {
            FindingCode::NoStartPage => 'No start page at the top',
            FindingCode::StartPageName => 'The first page has a name that servers do not look for',
            FindingCode::StartPageElsewhere => 'The start page lies deeper',
            FindingCode::SeveralStartPages => 'Several start pages',
            FindingCode::WrapperLifted => 'A wrapping folder is lifted',
            FindingCode::CaseTwins => 'Names that differ in case only',
            FindingCode::Leftovers => 'Leftovers that do not land',
            FindingCode::LeftoverCopy => 'Copies and what editors leave',
            FindingCode::LeftoverDevelopment => 'What it was built with lies in it',
            FindingCode::SecretKey => 'A private key lies in it',
            FindingCode::SecretSetting => 'A secret lies in it',
            FindingCode::SecretToken => 'What looks like a token lies in it',
            FindingCode::SecretDump => 'A database lies in it',
            FindingCode::ArchiveInside => 'An archive lies in it',
            FindingCode::TextQuotes => 'Curly quotes in the code of a page',
            FindingCode::TextMark => 'A mark before the first line of a program',
            FindingCode::TextEncoding => 'The encoding changed',
            FindingCode::FileEnding => 'Endings that do not fit',
            FindingCode::NameUnusual => 'Names that not every system holds',
            FindingCode::NameLooksLike => 'Names that look like others',
            FindingCode::ExecutableFile => 'Programs for computers',
            FindingCode::ServerScript => 'Scripts that the server would run',
            FindingCode::ModeUnusual => 'Unusual modes',
            FindingCode::UnfinishedFiller => 'Filler text',
            FindingCode::UnfinishedTitle => 'Pages without a title',
            FindingCode::UnfinishedDate => 'Invites to a day that has passed',
            FindingCode::UnfinishedSoon => 'Pages that are not there yet',
            FindingCode::FileUnused => 'Nothing refers to it',
            FindingCode::FileLarge => 'Large files',
            FindingCode::ImageOversized => 'Pictures far larger than shown',
            FindingCode::ReferenceCase => 'Works on the author’s computer, breaks live',
            FindingCode::ReferenceMissing => 'Leads nowhere',
            FindingCode::ReferenceListing => 'Leads to a directory without a start page',
            FindingCode::ReferenceAboveRoot => 'Leads above the top of the site',
            FindingCode::ReferenceLocalFile => 'Asks for a file of the author’s computer',
            FindingCode::ReferencePrivateHost => 'Asks a host that visitors do not reach',
            FindingCode::ReferenceWithLogin => 'Shows a login to everybody',
            FindingCode::ReferencePlainHttp => 'Loads by http:',
            FindingCode::ReferenceFragment => 'Leads to a place that the page does not have',
            FindingCode::ClientOther => 'Names the site of another client',
            FindingCode::ReferencesMore => 'And more of these',
        };
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

    /** @return list<Mend> what can be done about these */
    public function mends(): array
    {
        return Mend::all($this->findings);
    }

    /** On the button that mends all of this kind; null where none can be. */
    public function mendLabel(): ?string
    {
        $mends = $this->mends();
        if ($mends === []) {
            return null;
        }
        $all = count($mends) === count($this->findings)
            ? 'all '.number_format(count($mends))
            : number_format(count($mends)).' of '.number_format(count($this->findings));
        $isOne = count($this->findings) === 1;

        return match ($mends[0]->kind) {
            MendKind::CorrectReference => $isOne ? 'Correct it' : "Correct $all",
            MendKind::PointReference => $isOne ? 'Point it there' : "Point $all to the nearest",
            MendKind::LeaveOut => $isOne ? 'Leave it out' : "Leave $all out",
            MendKind::RenameStartPage => 'Rename it',
            MendKind::LiftDirectory => "Make {$mends[0]->finding->suggestion}/ the top",
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
