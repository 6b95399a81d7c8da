<?php

declare(strict_types=1);

define('QUAYLIGHT_VERSION', '2.4');
