<?php

declare(strict_types=1);

// Asks for pages, and for what each of them names, 50 times a second until standard input ends; then writes what was
// answered as one line of JSON: [view, path, begun, ended, status, contents], in seconds of one clock.
[, $base, $pages] = $argv;
$pages = explode(',', $pages);
$multi = curl_multi_init();
$idle = [];
$busy = [];
$answers = [];
$view = 0;
$ask = static function (int $view, string $path) use ($base, $multi, &$idle, &$busy): void {
    $curl = array_pop($idle) ?? curl_init();
    curl_setopt_array($curl, [CURLOPT_URL => $base.$path, CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 5]);
    $busy[spl_object_id($curl)] = [$view, $path, hrtime(true) / 1e9];
    curl_multi_add_handle($multi, $curl);
};
stream_set_blocking(STDIN, false);
$next = microtime(true);
$ends = false;
echo "ready\n";
while (! $ends || $busy !== []) {
    $ends = $ends || (fread(STDIN, 1) === '' && feof(STDIN));
    if (! $ends && microtime(true) >= $next) {
        $next += 0.02;
        foreach ($pages as $page) {
            $ask(++$view, $page);
        }
    }
    curl_multi_exec($multi, $running);
    while (($told = curl_multi_info_read($multi)) !== false) {
        $curl = $told['handle'];
        [$of, $path, $begun] = $busy[spl_object_id($curl)];
        unset($busy[spl_object_id($curl)]);
        $text = (string) curl_multi_getcontent($curl);
        $answers[] = [
            $of,
            $path,
            $begun,
            hrtime(true) / 1e9,
            curl_getinfo($curl, CURLINFO_RESPONSE_CODE),
            hash('xxh128', $text),
        ];
        curl_multi_remove_handle($multi, $curl);
        $idle[] = $curl;
        if (in_array($path, $pages, true)) {
            preg_match_all('/(?:href|src)="([^"]+)"/', $text, $found);
            foreach ($found[1] as $asset) {
                $ask($of, $asset);
            }
        }
    }
    curl_multi_select($multi, max(0.0005, min(0.01, $next - microtime(true))));
}
echo json_encode($answers), "\n";
