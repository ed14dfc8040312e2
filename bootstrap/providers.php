<?php

return [App\Yard\YardServiceProvider::class];
