-- Phones and tablets that were paired: what they show is known by its SHA-256 alone.
create table device (
    id          uuid primary key,
    name        text not null check (char_length(name) between 1 and 60),
    secret_hash bytea not null unique check (octet_length(secret_hash) = 32),
    paired_at   timestamptz not null default now(),
    seen_at     timestamptz not null default now(),
    ended_at    timestamptz
);
-- Two that are in use do not go by one name: the history tells them apart by it.
create unique index device_name on device (lower(name)) where ended_at is null;
grant select, insert on device to bright_angle_server;
grant update (seen_at, ended_at) on device to bright_angle_server;

-- Which device saved a revision; none where it was the machine itself.
alter table revision add column device text check (char_length(device) between 1 and 60);
