-- Photos and drawings, each under the SHA-256 of its bytes. Site files name them; a picture is never changed.
create table picture (
    name       text        primary key check (name ~ '^[0-9a-f]{64}$'),
    media_type text        not null check (media_type in ('image/png', 'image/jpeg')),
    width_px   integer     not null check (width_px > 0),
    height_px  integer     not null check (height_px > 0),
    bytes      bytea       not null,
    created_at timestamptz not null default now()
);
