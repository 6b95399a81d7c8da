<?php

declare(strict_types=1);

/**
 * Builds the small made-up sites of the demo world: folders that were live before, and packages to deploy.
 *
 * The same description always gives the same bytes.
 */
final class SiteBuilder
{
    private const SENTENCES = [
        'The causeway is dry for two hours on either side of low water, and the bell is rung when it is time to turn '
            .'back.',
        'Nothing here is hurried; the weather decides, and the weather has been deciding for longer than we have.',
        'In winter we open when the lamp is lit. In summer we open when somebody finds the key.',
        'Ask at the door for the map that Edda drew, which is better than the printed one and has the dog on it.',
        'The small building with the green roof was the net store and now holds the kettle, which is the centre of '
            .'everything.',
        'Visitors who come by bicycle are given the better biscuits; this is not written down anywhere else.',
        'We keep a book by the window. Please write in it what you saw, and the tide you saw it on.',
        'Most of what we know was learned the wrong way round first, and is the better remembered for it.',
    ];

    /** @param  array{title: string, line: string, accent: string, pages: array<string, string>, map?: int}  $site */
    public function __construct(private readonly array $site, private readonly string $version)
    {
    }

    /** @return array<string, string> contents by path */
    public function files(): array
    {
        $files = [
            'index.html' => $this->page('', $this->site['title'], 0),
            'assets/style.css' => $this->style(),
            'assets/mark.svg' => $this->mark(),
            'assets/menu.js' => "document.querySelectorAll('nav a').forEach(a => { if (a.href === location.href) "
                ."a.setAttribute('aria-current', 'page'); });\n",
            'robots.txt' => "User-agent: *\nAllow: /\n",
        ];
        $number = 1;
        foreach ($this->site['pages'] as $slug => $title) {
            $files["$slug.html"] = $this->page($slug, $title, $number);
            $files["img/$number.svg"] = $this->picture($number);
            $number++;
        }

        if (isset($this->site['map'])) {
            $files['img/map.svg'] = $this->map($this->site['map']);
        }

        return $files;
    }

    /** A chart of soundings; the weight of a site. */
    private function map(int $kilobytes): string
    {
        $points = '';
        for ($number = 0; strlen($points) < $kilobytes * 1000; $number++) {
            $points .= sprintf('<circle cx="%d" cy="%d" r="1"/>', ($number * 7919) % 1200, ($number * 104729) % 900);
        }

        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 900" '
            ."fill=\"{$this->site['accent']}\">$points</svg>\n";
    }

    private function page(string $slug, string $title, int $number): string
    {
        $up = str_repeat('../', substr_count($slug, '/'));
        $links = "<a href=\"{$up}index.html\">Start</a>";
        foreach ($this->site['pages'] as $other => $label) {
            $links .= " <a href=\"$up$other.html\">".htmlspecialchars($label).'</a>';
        }
        $text = '';
        for ($paragraph = 0; $paragraph < 4; $paragraph++) {
            $text .=
                '<p>'
                .self::SENTENCES[($number * 3 + $paragraph * 5 + strlen($this->site['title'])) % 8]
                .' '
                .self::SENTENCES[($number + $paragraph * 3 + strlen($this->version)) % 8]
                ."</p>\n";
        }
        $picture = $number > 0 ? "<img src=\"{$up}img/$number.svg\" alt=\"\" width=\"640\" height=\"240\">" : '';
        $name = htmlspecialchars($this->site['title']);
        $heading = htmlspecialchars($title);
        $line = htmlspecialchars($this->site['line']);

        return <<<HTML
        <!doctype html>
        <html lang="en">
        <head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>$heading · $name</title>
        <link rel="stylesheet" href="{$up}assets/style.css"></head>
        <body>
        <header><img src="{$up}assets/mark.svg" alt="" width="48" height="48"><b>$name</b><nav>$links</nav></header>
        <main><h1>$heading</h1><p class="line">$line</p>
        $picture
        $text</main>
        <footer>$name, version {$this->version} of these pages</footer>
        <script src="{$up}assets/menu.js"></script>
        </body>
        </html>

        HTML;
    }

    private function style(): string
    {
        return "body{font:17px/1.6 Georgia,serif;margin:0;color:#222;background:#faf8f3}\n"
            .'header{display:flex;gap:16px;align-items:center;padding:16px 6vw;border-bottom:4px '
                ."solid {$this->site['accent']}}\n"
            ."nav a{color:{$this->site['accent']};margin-right:14px}\nmain{padding:24px 6vw;max-width:44em}\n"
            .".line{font-style:italic;color:#555}\nimg{max-width:100%;height:auto}\nfooter{padding:24px "
                ."6vw;color:#666;font-size:14px}\n"
            ."/* {$this->version} */\n";
    }

    private function mark(): string
    {
        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 48 48"><circle cx="24" cy="24" r="20" '
            ."fill=\"{$this->site['accent']}\"/><path d=\"M8 30q8-8 16 0t16 0\" stroke=\"#fff\" stroke-width=\"3\" "
            ."fill=\"none\"/></svg>\n";
    }

    private function picture(int $number): string
    {
        $hills = '';
        for ($x = 0; $x <= 640; $x += 8) {
            $y = 150 + 40 * sin($x / (40 + $number * 9)) + 18 * sin($x / (11 + $number));
            $hills .= sprintf('%d,%.1f ', $x, $y);
        }

        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 240"><rect width="640" height="240" '
            .'fill="#e8e2d4"/><circle cx="'
            .(90 * $number)
            .'" cy="60" r="26" fill="#fff6dc"/><polygon '
            ."points=\"0,240 {$hills}640,240\" fill=\"{$this->site['accent']}\"/></svg>\n";
    }
}
