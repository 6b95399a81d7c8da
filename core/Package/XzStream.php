<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/**
 * The contents of an xz file, unpacked by the program of that name: PHP has no library for it.
 *
 * The program gets so much memory and no more; files that ask for a larger dictionary are refused. Without an end the
 * file is broken, and the program says so by its status.
 */
final class XzStream implements ByteSource
{
    private const MEMORY_MIB = 96;

    /** @var resource|null */
    private $process;

    /** @var resource */
    private $output;

    /** @throws PackageRefused */
    public function __construct(string $path, private readonly string $name)
    {
        $process = proc_open(
            ['xz', '-d', '-c', '-Q', '--memlimit-decompress='.self::MEMORY_MIB.'MiB', '--', $path],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        $this->process = $process === false
            ? throw PackageRefused::because($name, RefusalReason::Broken, ': it could not be unpacked')
            : $process;
        $this->output = $pipes[1];
    }

    public function __destruct()
    {
        if ($this->process !== null) {
            fclose($this->output);
            proc_terminate($this->process, 9);
            proc_close($this->process);
        }
    }

    public function read(int $bytes): string
    {
        if ($this->process === null) {
            return '';
        }
        $data = (string) stream_get_contents($this->output, $bytes);
        if (strlen($data) < $bytes) {
            fclose($this->output);
            $status = proc_close($this->process);
            $this->process = null;
            if ($status !== 0) {
                throw PackageRefused::because($this->name, RefusalReason::Broken, 'in its compressed part');
            }
        }

        return $data;
    }
}
