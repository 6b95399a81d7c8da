<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A label in a line of a letter, "FTP user name:". */
final readonly class Label
{
    private const OTHER = 'mail|e-?mail|web ?mail|imap|pop3?|smtp|mailbox(?:es)?|data ?bases?|db|mysql|mariadb|sql|control panel|panel|customer|client area|member|billing|support|name ?server|dns|invoice|admin|dashboard|incoming|outgoing|registrar';

    /**
     * @param  int  $at  bytes from the beginning of the line
     * @param  int  $end  where the label and its mark end
     * @param  bool  $files  whether it says that it is about file transfer
     * @param  bool  $elsewhere  whether it says that it is about something else
     * @param  bool  $sentence  whether its value follows in a sentence, "is", and not behind a mark
     * @param  bool  $names  whether it is about the name service, which says nothing about what follows
     * @param  bool  $weak  whether the word is used for other things as well
     */
    private function __construct(
        public Fact $fact,
        public string $words,
        public int $at,
        public int $end,
        public bool $files,
        public bool $elsewhere,
        public bool $sentence,
        public bool $weak,
        public bool $names,
    ) {
    }

    /** @return list<self> in their order */
    public static function in(string $line): array
    {
        if (preg_match_all(self::pattern(), $line, $matches, PREG_SET_ORDER | PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL) === false) {
            return [];
        }
        $labels = [];
        foreach ($matches as $match) {
            // Behind a single blank only where the line has labels already: "Name server" is not a server.
            if ($labels === [] && preg_match('/[\w)][ ]\z/', substr($line, 0, $match[0][1])) === 1 && preg_match('/\b(?:and|the|with|to)[ ]\z/i', substr($line, 0, $match[0][1])) !== 1) {
                continue;
            }
            foreach (Fact::cases() as $fact) {
                $word = $match[$fact->value][0] ?? null;
                if ($word !== null) {
                    $before = mb_strtolower((string) ($match['before'][0] ?? ''));
                    $mark = (string) ($match['mark'][0] ?? '');
                    $labels[] = new self(
                        $fact, "$before$word", $match[0][1], $match[0][1] + strlen((string) $match[0][0]),
                        preg_match('/\b(?:s?ftps?|ssh|upload|file transfer|web ?space)\b/i', "$before$word") === 1, preg_match('/\b(?:'.self::OTHER.')\b/', $before) === 1,
                        preg_match('/\A\s+(?:is|are)\b/i', $mark) === 1, in_array(mb_strtolower($word), ['server', 'site', 'url', 'address'], true), preg_match('/\b(?:name ?server|dns)\b/', $before) === 1,
                    );
                }
            }
        }

        return $labels;
    }

    private static function pattern(): string
    {
        $facts = [];
        foreach (Fact::cases() as $fact) {
            $facts[] = "(?<{$fact->value}>".implode('|', $fact->labels()).')';
        }
        $before = '(?<before>(?:(?:your|the|our|my|s?ftps?|ssh|upload|file transfer|web ?space|hosting|web|account|new|'.self::OTHER.')[ \t_\/-]*)*)';
        // At the line's beginning, behind a bullet, or behind a wide gap; then a mark, a wide gap, "is", or the line's end.
        $start = '(?:(?<=^)|(?<=^[ \t])|(?<=[ \t]{2})|(?<=\t)|(?<=[|;,(>] )|(?<=[|;,(*>•·#-] )|(?<=[.!] )|(?<=\band )|(?<=\bthe )|(?<=\bwith )|(?<=\S[ ]))';
        $mark = '(?<mark>\s*(?:\([^()]{0,30}\))?\s*(?::|=(?!=)|\.{2,}|\t|\||\s[–—-]+>?\s|→)|[ ]{2,}|[ ](?=\/\w)|(?<=port)[ ](?=\d{2,5}\b)|\s+(?:is|are)(?=\s)(?::)?|\s*$)';

        return "/$start$before(?:".implode('|', $facts).")$mark/miu";
    }
}
