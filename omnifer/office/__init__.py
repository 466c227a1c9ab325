"""Where a rider's tours are kept and read: by the web server for short requests, by workers for what takes long."""
