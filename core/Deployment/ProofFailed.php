<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use RuntimeException;

/** What is live is not what was sent. */
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
}
