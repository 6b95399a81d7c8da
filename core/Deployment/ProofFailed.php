<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use RuntimeException;

/** Thrown where what is live is not what was sent. */
final class ProofFailed extends RuntimeException
{
    /** @param  list<PageProof>  $proofs */
    private function __construct(string $sentence, public readonly array $proofs)
    {
        parent::__construct($sentence);
    }

    /** @param  list<PageProof>  $proofs */
    public static function live(array $proofs): self
    {
        foreach ($proofs as $proof) {
            if (! $proof->holds()) {
                return new self($proof->sentence().'.', $proofs);
            }
        }

        return new self('The live site was not proven.', $proofs);
    }

    public static function bytes(string $path): self
    {
        return new self("Read back from the server, $path does not have the bytes that were sent.", []);
    }

    public static function listing(string $path): self
    {
        return new self("After the run the server does not list $path as it was sent.", []);
    }

    /** @param  string  $said  by the server; "" where it said nothing against it */
    public static function names(string $said): self
    {
        return new self(
            'The server did not give the new tree the name of the document root'.($said === '' ? '.' : ": $said"),
            [],
        );
    }

    public static function changedMeanwhile(string $path): self
    {
        return new self(
            "Somebody changed $path on the server while it was being replaced. Make the plan again and say what is to "
                .'stay.',
            [],
        );
    }
}
