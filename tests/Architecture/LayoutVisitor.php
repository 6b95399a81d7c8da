<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\NodeVisitorAbstract;

/** Collects where code says more than one thing on a line, and where a method takes too many. */
final class LayoutVisitor extends NodeVisitorAbstract
{
    private const MOST = 3;

    /** Beyond these some are one thing that has no name yet; a value that is made takes what it holds. */
    private const MOST_PARAMETERS = 5;

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
        } elseif ($node instanceof Node\Stmt\ClassMethod) {
            count($node->params) > self::MOST_PARAMETERS && ! self::makesValue($node)
                && ($this->faults[] = $node->getStartLine().": $node->name takes more than five");
        } elseif ($node instanceof Node\Expr\Ternary) {
            foreach ([$node->cond, $node->if, $node->else] as $part) {
                $part instanceof Node\Expr\Ternary
                    && ($this->faults[] = $node->getStartLine().': a ternary in a ternary');
            }
        }

        return null;
    }

    private static function makesValue(Node\Stmt\ClassMethod $method): bool
    {
        $type = $method->returnType instanceof Node\NullableType ? $method->returnType->type : $method->returnType;

        return $method->name->name === '__construct'
            || ($method->isStatic() && $type instanceof Node\Name && $type->toString() === 'self');
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
