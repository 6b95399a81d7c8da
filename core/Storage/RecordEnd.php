<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Cellarium\Core\Json\JsonFields;

/**
 * The newest line of the record, noted beside the lists of backups each time one was written: what shows that a
 * database is an earlier one, or another.
 */
final readonly class RecordEnd
{
    private const FILE = 'record-end.json';

    private const VERSION = 1;

    /** @param  int  $number  of the line */
    public function __construct(public int $number, public string $seal)
    {
    }

    /** What was noted is known not to be so any more. */
    public static function forget(string $directory): void
    {
        @unlink("$directory/".self::FILE);
    }

    /** Null where none was noted, or the note was torn by a loss of power. */
    public static function in(string $directory): ?self
    {
        $text = @file_get_contents("$directory/".self::FILE);
        try {
            $fields = JsonFields::fromJson($text === false ? '' : $text);

            return $fields->number('version') === self::VERSION
                ? new self($fields->number('number'), $fields->text('seal'))
                : null;
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /**
     * A note, and no more: where it cannot be written it is the earlier one. One that is ahead stays: the database that
     * does not have that line is not the one that wrote it.
     */
    public function noteIn(string $directory): void
    {
        if ((self::in($directory)->number ?? 0) > $this->number) {
            return;
        }
        $own = "$directory/".self::FILE.'.'.getmypid();
        $text = json_encode(
            ['version' => self::VERSION, 'number' => $this->number, 'seal' => $this->seal],
            JSON_THROW_ON_ERROR,
        );
        @file_put_contents($own, $text) === strlen($text) && @rename($own, "$directory/".self::FILE) || @unlink($own);
    }
}
