<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Finding\Mentions;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\SecretCheck;
use Cellarium\Core\Package\Finding\TextCheck;
use Cellarium\Core\Package\Finding\UnfinishedCheck;
use Cellarium\Core\Package\Finding\WordProcessorCheck;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Package\Fit\TraitCheck;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\ReferenceCheck;
use Cellarium\Core\Reference\References;
use Cellarium\Core\Reference\Resolver;

/** All that is looked for in texts, in one reading: one text is held at a time, however many there are. */
final readonly class TextChecks
{
    /** Texts that hold no references, but maybe secrets and names of files. */
    private const TEXT = '/\.(?:txt|md|json|xml|ya?ml|toml|ini|conf|cfg|env|sh|log|pem|key|ppk|htaccess)\z'
        .'|(?:\A|\/)(?:\.env(?:\.[\w-]+)?|id_(?:rsa|dsa|ecdsa|ed25519)|\.npmrc|\.netrc|\.htpasswd)\z/i';

    /** Of these, in bytes; what is longer is data. */
    private const LONGEST_TEXT = 1_000_000;

    public References $references;

    public Mentions $mentions;

    public PackageTraits $traits;

    /** @var list<PackageFinding> */
    public array $findings;

    /**
     * @param  Manifest  $files  that are read
     * @param  Resolver  $resolver  that knows all there will be
     * @param  string  $today  as YYYY-MM-DD
     */
    public function __construct(
        PackageContents $contents,
        Manifest $files,
        Resolver $resolver,
        string $today,
    ) {
        $mentions = new Mentions($files);
        /** @var list<TextCheck> $checks */
        $checks = [new SecretCheck, new UnfinishedCheck($today), new WordProcessorCheck];
        $traits = new TraitCheck;
        $references = new ReferenceCheck($resolver);
        foreach ($files->files() as $entry) {
            $path = $entry->path->toString();
            $isDocument = Documents::isOne($path, $entry->size);
            if (! $isDocument && ($entry->size > self::LONGEST_TEXT || preg_match(self::TEXT, $path) !== 1)) {
                continue;
            }
            $text = $contents->text($entry);
            $document = $isDocument ? Documents::read($path, $text) : null;
            $document === null || $references->add($path, $document);
            $mentions->note($entry->path->name(), $text);
            $traits->look($entry, $text, $document);
            foreach ($checks as $check) {
                $check->look($entry, $text, $document);
            }
        }
        $this->references = $references->finish();
        $this->mentions = $mentions;
        $this->traits = $traits->traits(array_map(static fn (array $host): int => $host[0], $this->references->hosts));
        $this->findings = array_merge(...array_map(static fn (TextCheck $check): array => $check->findings(), $checks));
    }
}
