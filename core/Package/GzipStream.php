<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/**
 * The contents of a gzip file (RFC 1952), as it is unpacked; zlib compares length and checksum at the end of each
 * member.
 *
 * A file that ends before its member does is broken. PHP's own gzread() gives what there is and says nothing.
 */
final class GzipStream implements ByteSource
{
    /** Packed bytes taken at a time; they become at most about a thousand times as many. */
    private const CHUNK = 4096;

    /** @var resource */
    private $file;

    private ?\InflateContext $member = null;

    private string $buffer = '';

    /** How much of the buffer has been read. */
    private int $at = 0;

    /** Packed bytes that follow the member that has just ended. */
    private string $rest = '';

    /** @throws PackageRefused */
    public function __construct(string $path, private readonly string $name)
    {
        $file = @fopen($path, 'rb');
        $this->file = $file === false ? throw PackageRefused::because($name, RefusalReason::NotAnArchive) : $file;
        $this->begin();
    }

    public function read(int $bytes): string
    {
        while (strlen($this->buffer) - $this->at < $bytes && $this->fill());
        $data = substr($this->buffer, $this->at, $bytes);
        $this->at += strlen($data);

        return $data;
    }

    /** @return bool false at the end of the last member */
    private function fill(): bool
    {
        $packed = $this->rest === '' ? (string) fread($this->file, self::CHUNK) : $this->rest;
        $this->rest = '';
        if ($this->member === null) {
            return $packed !== '' && $this->next($packed);
        }
        if ($packed === '') {
            throw PackageRefused::because(
                $this->name,
                RefusalReason::Broken,
                'at its end: the compressed part is cut off',
            );
        }
        $before = inflate_get_read_len($this->member);
        $data = @inflate_add($this->member, $packed);
        if ($data === false) {
            throw PackageRefused::because($this->name, RefusalReason::Broken, 'in its compressed part');
        }
        $this->buffer = substr($this->buffer, $this->at).$data;
        $this->at = 0;
        if (inflate_get_status($this->member) === ZLIB_STREAM_END) {
            $this->rest = substr($packed, inflate_get_read_len($this->member) - $before);
            $this->member = null;
        }

        return true;
    }

    /** Behind a member come another one, or zeros that some programs pad with; anything else does not belong there. */
    private function next(string $packed): bool
    {
        if (trim($packed, "\0") === '') {
            return true;
        }
        if (! str_starts_with($packed, "\x1f\x8b")) {
            throw PackageRefused::because(
                $this->name,
                RefusalReason::Broken,
                'at its end: something follows that does not belong to it',
            );
        }
        $this->begin();
        $this->rest = $packed;

        return true;
    }

    private function begin(): void
    {
        $member = inflate_init(ZLIB_ENCODING_GZIP);
        $this->member = $member === false ? throw PackageRefused::because($this->name, RefusalReason::Broken) : $member;
    }
}
