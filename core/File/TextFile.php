<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/**
 * A file as text: what it says, and how it says it. Edited text is written in the same encoding, with the same mark,
 * and with the line ends that each line had, so that where nothing was edited no byte changes.
 */
final readonly class TextFile
{
    /** What is larger is not edited as text, in bytes. */
    public const MOST = 2_000_000;

    /** Endings of what surely is none. */
    private const NO_TEXT = '/\.(?:jpe?g|png|gif|webp|avif|ico|pdf|zip|gz|tgz|bz2|xz|7z|rar|mp[34]|m4[av]|ogg|webm|mov|'
        .'woff2?|ttf|otf|eot|docx?|xlsx?|pptx?|odt|ods|psd|exe|dmg|iso|sqlite3?)\z/i';

    /**
     * @param  string  $text  UTF-8, with its line ends as they are
     * @param  bool  $isMarked  whether it begins with a byte order mark
     */
    private function __construct(public string $text, public TextEncoding $encoding, public bool $isMarked)
    {
    }

    /** @throws NotText */
    public static function fromBytes(string $bytes): self
    {
        strlen($bytes) > self::MOST && throw NotText::tooLarge(strlen($bytes), self::MOST);
        foreach ([TextEncoding::Utf8, TextEncoding::Utf16Le, TextEncoding::Utf16Be] as $marked) {
            if (str_starts_with($bytes, $marked->mark())) {
                return self::read(substr($bytes, strlen($marked->mark())), $marked, true)
                    ?? throw NotText::becauseOfBytes();
            }
        }
        foreach ([TextEncoding::Utf8, self::singleByte($bytes)] as $encoding) {
            $read = self::read($bytes, $encoding, false);
            if ($read !== null) {
                return $read;
            }
        }
        throw NotText::becauseOfBytes();
    }

    /** Whether it may be text as far as its name tells. */
    public static function mayBeOne(string $name): bool
    {
        return preg_match(self::NO_TEXT, $name) !== 1;
    }

    /** An empty file that is to become text. */
    public static function fresh(): self
    {
        return new self('', TextEncoding::Utf8, false);
    }

    /** What somebody edits: every line ends with "\n". */
    public function edited(): string
    {
        return LineEnds::plain($this->text);
    }

    /**
     * The bytes of the file with another text.
     *
     * @param  string  $edited  UTF-8, with whatever line ends a browser sends
     *
     * @throws NotText where a character has no place in the encoding
     */
    public function bytesOf(string $edited): string
    {
        $text = LineEnds::restored($this->text, LineEnds::plain($edited));
        $bytes = mb_convert_encoding($text, $this->encoding->name(), 'UTF-8');
        if (self::decoded($bytes, $this->encoding) !== $text) {
            throw $this->firstThatDoesNotFit($text);
        }

        return ($this->isMarked ? $this->encoding->mark() : '').$bytes;
    }

    /** What it is written in, in a few words. */
    public function label(): string
    {
        $isMarked = $this->isMarked && $this->encoding === TextEncoding::Utf8;

        return $this->encoding->label().($isMarked ? ' with a mark' : '').', '.LineEnds::label($this->text);
    }

    private static function singleByte(string $bytes): TextEncoding
    {
        return preg_match('/[\x80-\x9f]/', $bytes) === 1 ? TextEncoding::Windows1252 : TextEncoding::Latin1;
    }

    /** Null where the bytes do not come back to the letter, or are no text. */
    private static function read(string $bytes, TextEncoding $encoding, bool $isMarked): ?self
    {
        $text = self::decoded($bytes, $encoding);
        $isText = $text !== null
            && preg_match('/[\x00-\x08\x0b\x0e-\x1f\x7f]/', $text) !== 1
            && mb_convert_encoding($text, $encoding->name(), 'UTF-8') === $bytes;

        return $isText ? new self($text, $encoding, $isMarked) : null;
    }

    private static function decoded(string $bytes, TextEncoding $encoding): ?string
    {
        if ($encoding === TextEncoding::Utf8) {
            return mb_check_encoding($bytes, 'UTF-8') ? $bytes : null;
        }

        $text = mb_check_encoding($bytes, $encoding->name())
            ? mb_convert_encoding($bytes, 'UTF-8', $encoding->name())
            : null;

        return is_string($text) ? $text : null;
    }

    private function firstThatDoesNotFit(string $text): NotText
    {
        $line = 1;
        foreach (mb_str_split($text, 1, 'UTF-8') as $character) {
            $there = mb_convert_encoding($character, $this->encoding->name(), 'UTF-8');
            if (self::decoded($there, $this->encoding) !== $character) {
                return NotText::notIn($this->encoding, $character, $line);
            }
            $character === "\n" && $line++;
        }

        return NotText::becauseOfBytes();
    }
}
