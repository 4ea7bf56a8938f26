-- The firm's own catalogue: whole files, one after another, never changed; the last hundred stay.
create table catalogue (
    number     integer primary key check (number > 0),
    created_at timestamptz not null default now(),
    says       text not null check (char_length(says) between 1 and 200),
    device     text check (char_length(device) between 1 and 60),
    file       jsonb not null
);
grant select, insert on catalogue to bright_angle_server;

create function thin_catalogue() returns trigger language plpgsql security definer set search_path = public as $$
begin
    delete from catalogue where number <= new.number - 100;
    return null;
end
$$;
create trigger catalogue_stays_small after insert on catalogue for each row execute function thin_catalogue();
