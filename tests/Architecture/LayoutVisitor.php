<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\NodeVisitorAbstract;

/** Collects where code says more than one thing on a line. */
final class LayoutVisitor extends NodeVisitorAbstract
{
    private const MOST = 3;

    /** @var list<string> "LINE: what is wrong" */
    public array $faults = [];

    public function enterNode(Node $node): null
    {
        if ($node instanceof Node\Expr\Array_) {
            $keyed = array_filter($node->items, static fn (Node\ArrayItem $item): bool => $item->key !== null);
            count($keyed) > self::MOST
                && $this->eachOnItsLine($node->items, $node, 'an array with more than three keys');
        } elseif ($node instanceof Node\Expr\Match_) {
            $this->eachOnItsLine($node->arms, $node, 'the arms of a match');
        } elseif ($node instanceof Node\Expr\Ternary) {
            foreach ([$node->cond, $node->if, $node->else] as $part) {
                $part instanceof Node\Expr\Ternary
                    && ($this->faults[] = $node->getStartLine().': a ternary in a ternary');
            }
        }

        return null;
    }

    /** @param  array<Node>  $parts */
    private function eachOnItsLine(array $parts, Node $node, string $what): void
    {
        $lines = array_map(static fn (Node $part): int => $part->getStartLine(), $parts);
        if (count(array_unique($lines)) < count($lines)) {
            $this->faults[] = $node->getStartLine().": $what, not one a line";
        }
    }
}
