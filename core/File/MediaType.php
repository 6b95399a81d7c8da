<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The media type of a file, by the ending of its name, as far as browsers show it; types as registered with IANA. */
enum MediaType: string
{
    case Png = 'image/png';
    case Jpeg = 'image/jpeg';
    case Gif = 'image/gif';
    case WebP = 'image/webp';
    case Avif = 'image/avif';
    case Bmp = 'image/bmp';
    case Icon = 'image/vnd.microsoft.icon';
    case Svg = 'image/svg+xml';
    case Pdf = 'application/pdf';
    case Mp3 = 'audio/mpeg';
    case M4a = 'audio/mp4';
    case Wav = 'audio/wav';
    case Ogg = 'audio/ogg';
    case Flac = 'audio/flac';
    case Mp4 = 'video/mp4';
    case WebM = 'video/webm';

    private const ENDINGS = [
        'png' => self::Png,
        'jpg' => self::Jpeg,
        'jpeg' => self::Jpeg,
        'gif' => self::Gif,
        'webp' => self::WebP,
        'avif' => self::Avif,
        'bmp' => self::Bmp,
        'ico' => self::Icon,
        'svg' => self::Svg,
        'pdf' => self::Pdf,
        'mp3' => self::Mp3,
        'm4a' => self::M4a,
        'wav' => self::Wav,
        'ogg' => self::Ogg,
        'oga' => self::Ogg,
        'flac' => self::Flac,
        'mp4' => self::Mp4,
        'm4v' => self::Mp4,
        'webm' => self::WebM,
    ];

    /** Null where no browser shows it. */
    public static function fromName(string $name): ?self
    {
        return self::ENDINGS[strtolower(pathinfo($name, PATHINFO_EXTENSION))] ?? null;
    }

    /** "image", "application", "audio" or "video". */
    public function kind(): string
    {
        return explode('/', $this->value)[0];
    }

    /** Whether nothing in it could be run, so that it may be opened by itself. */
    public function isPlainImage(): bool
    {
        return $this->kind() === 'image' && $this !== self::Svg;
    }
}
