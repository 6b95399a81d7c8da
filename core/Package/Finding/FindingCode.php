<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

/** The codes of findings; the values are stable, see docs/findings.md. */
enum FindingCode: string
{
    case NoStartPage = 'no_start_page';
    case StartPageName = 'start_page_name';
    case StartPageElsewhere = 'start_page_elsewhere';
    case SeveralStartPages = 'several_start_pages';
    case WrapperLifted = 'wrapper_lifted';
    case CaseTwins = 'case_twins';
    case Leftovers = 'leftovers';
    case LeftoverCopy = 'leftover_copy';
    case LeftoverDevelopment = 'leftover_development';
    case SecretKey = 'secret_key';
    case SecretSetting = 'secret_setting';
    case SecretToken = 'secret_token';
    case SecretDump = 'secret_dump';
    case ArchiveInside = 'archive_inside';
    case TextQuotes = 'text_quotes';
    case TextMark = 'text_mark';
    case TextEncoding = 'text_encoding';
    case FileEnding = 'file_ending';
    case NameUnusual = 'name_unusual';
    case NameLooksLike = 'name_looks_like';
    case ExecutableFile = 'executable_file';
    case ServerScript = 'server_script';
    case ModeUnusual = 'mode_unusual';
    case UnfinishedFiller = 'unfinished_filler';
    case UnfinishedTitle = 'unfinished_title';
    case UnfinishedDate = 'unfinished_date';
    case UnfinishedSoon = 'unfinished_soon';
    case FileUnused = 'file_unused';
    case FileLarge = 'file_large';
    case ImageOversized = 'image_oversized';
    case ReferenceCase = 'reference_case';
    case ReferenceMissing = 'reference_missing';
    case ReferenceListing = 'reference_listing';
    case ReferenceAboveRoot = 'reference_above_root';
    case ReferenceLocalFile = 'reference_local_file';
    case ReferencePrivateHost = 'reference_private_host';
    case ReferenceWithLogin = 'reference_with_login';
    case ReferencePlainHttp = 'reference_plain_http';
    case ReferenceFragment = 'reference_fragment';
    case ReferencesMore = 'references_more';
    case ClientOther = 'client_other';

    /** Which names are start pages is the site's to say; these are judged again for the site that is chosen. */
    public function isOfStartPage(): bool
    {
        return in_array($this, [self::NoStartPage, self::StartPageName, self::StartPageElsewhere], true);
    }

    public function isOfReference(): bool
    {
        return str_starts_with($this->value, 'reference');
    }

    public function isOfSecret(): bool
    {
        return str_starts_with($this->value, 'secret_');
    }

    /** What a version before had as well is no news. */
    public function isNoNewsAgain(): bool
    {
        return $this === self::ClientOther || str_starts_with($this->value, 'unfinished_');
    }

    /** Whether its message goes on from the name of a file; else it is a sentence of its own. */
    public function goesOnFromAFile(): bool
    {
        return preg_match(
            '/^(?:reference|secret|archive|name|leftover|executable|server|mode|unfinished|file|image|client|text)_/',
            $this->value,
        ) === 1;
    }
}
