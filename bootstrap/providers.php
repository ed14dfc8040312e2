<?php

return [App\Shop\ShopServiceProvider::class];
