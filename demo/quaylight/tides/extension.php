<?php

declare(strict_types=1);

// A tide is high every twelve hours and twenty-five minutes; that much this one knows.
return static fn (string $text): string => $text.' High water comes every 12 hours and 25 minutes.';
