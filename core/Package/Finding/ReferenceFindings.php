<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Reference\BrokenReference;
use Cellarium\Core\Reference\Fault;
use Cellarium\Core\Reference\ReferenceKind;
use Cellarium\Core\Reference\References;

/** References of a package that do not lead where they say, as findings. */
final class ReferenceFindings
{
    /** So many are kept, each with its file and line; what is more of them is counted. */
    public const MOST = 1000;

    /**
     * @param  string  $folder  that is the root of the site, "" is the top
     * @param  string  $where  what is not there is not, in words
     * @return list<PackageFinding> in the order of files and lines
     */
    public static function find(
        Manifest $manifest,
        References $references,
        string $folder = '',
        string $where = 'in the package',
    ): array {
        $broken = $references->broken;
        // Where a program answers, an address without a file may be one of its pages.
        $answers = self::hasProgram($manifest, $folder);
        // Names are written from the top then, which is not the root of the site: mending would write wrong ones.
        $isMended = $folder === '';
        $findings = array_map(
            static fn (BrokenReference $one): PackageFinding => new PackageFinding(
                FindingCode::from($one->fault->value),
                self::severity($one, $answers),
                self::message($one, $where),
                $one->file,
                $one->line,
                $one->suggestion,
                $isMended ? $one->reference->offset : null,
            ),
            array_slice($broken, 0, self::MOST),
        );
        $more = count($broken) - self::MOST;
        $more <= 0 || $findings[] = new PackageFinding(
            FindingCode::ReferencesMore,
            Severity::Warn,
            "$more more references do not lead where they say. Mend these first and upload it again.",
        );

        return $findings;
    }

    private static function severity(BrokenReference $one, bool $answers): Severity
    {
        return match ($one->fault) {
            Fault::PlainHttp, Fault::NoSuchPlace => Severity::Note,
            // Nobody means it, everybody's visitors see it, and it can be mended here.
            Fault::WrongCase => Severity::Stop,
            Fault::Missing, Fault::Listing => $one->reference->how === 'source map'
                || ($answers && $one->reference->kind === ReferenceKind::Link)
                    ? Severity::Note
                    : Severity::Warn,
            default => Severity::Warn,
        };
    }

    private static function message(BrokenReference $one, string $where): string
    {
        $asked = Quote::fromText($one->reference->value);

        return match ($one->fault) {
            Fault::WrongCase => "asks for $asked; the file is $one->suggestion.",
            Fault::Missing => "asks for $asked, which is not $where"
                .($one->suggestion === null ? '.' : "; nearest is $one->suggestion."),
            Fault::Listing => "leads to $asked, a directory without a start page: visitors get a listing, or nothing.",
            Fault::AboveRoot => "asks for $asked, which leads above the top of the site"
                .($one->suggestion === null ? '.' : "; $one->suggestion may be meant."),
            Fault::LocalFile => "asks for $asked, a file on the author’s own computer.",
            Fault::PrivateHost => "asks for $asked, which only the author’s network knows.",
            // Not with its login: that is a secret.
            Fault::WithLogin => 'names an address with a login in it, for everybody to read.',
            Fault::PlainHttp => "loads $asked by http:. A page of https: does not show it.",
            Fault::NoSuchPlace => "leads to $asked; the page has no such place.",
        };
    }

    private static function hasProgram(Manifest $manifest, string $folder): bool
    {
        foreach (['.htaccess', 'index.php', 'web.config', '_redirects'] as $name) {
            if ($manifest->get(ltrim("$folder/$name", '/'))?->isFile() === true) {
                return true;
            }
        }

        return false;
    }
}
